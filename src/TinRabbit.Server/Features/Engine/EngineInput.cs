using TinRabbit.Core.Filling;
using TinRabbit.Core.Shapes;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Engine;

/// <summary>Reads what the engine is asked; what is wrong is named by its place in the request.</summary>
internal static class EngineInput
{
    /// <summary>What a fill needs.</summary>
    internal static async Task<FillInput> ReadFill(FillRequest request, TinContext db, CancellationToken stop)
    {
        var platform = await ReadPlatform(request.Platform, db, stop);
        return new(
            platform,
            ReadFields(request.Fields, platform),
            request.Field ?? throw new InvalidInputException([new("field", "The key of the field to fill is needed.")]),
            ReadTerms(request.Terms),
            ReadAvoid(request.Avoid)
        )
        {
            Lead = request.Lead,
            Facts = request.Facts?.Words,
        };
    }

    /// <summary>A listing's fields; none where they are left out.</summary>
    internal static IReadOnlyDictionary<string, FieldValue> ReadFields(JsonElement fields, Platform platform) =>
        fields.ValueKind is JsonValueKind.Undefined or JsonValueKind.Null
            ? new Dictionary<string, FieldValue>()
            : CopyJson.Read(fields, platform);

    /// <summary>The kind of a page; null where none is given.</summary>
    internal static PageKind? ReadPageKind(string? kind) =>
        kind is null ? null
        : Enum.TryParse<PageKind>(kind, ignoreCase: true, out var known) && Enum.IsDefined(known) && !char.IsAsciiDigit(kind[0]) ? known
        : throw new InvalidInputException([new("pageKind", "The kind of a page is product, category or content.")]);

    /// <summary>The alt texts that a copy has.</summary>
    internal static IReadOnlyList<string> AltTexts(Platform platform, IReadOnlyDictionary<string, FieldValue> copy) =>
        platform.Role("alt") is { } field && copy.TryGetValue(field.Key, out var value) ? value.Units(field.Shape) : [];

    /// <summary>Terms to avoid, each with a word in it.</summary>
    internal static IReadOnlyList<string> ReadAvoid(IReadOnlyList<string>? avoid)
    {
        for (var i = 0; i < avoid?.Count; i++)
            if (Core.Words.Tokens.Of(avoid[i] ?? "").Count == 0)
                throw new InvalidInputException([new($"avoid[{i}]", $"\"{avoid[i]}\" has no word in it.")]);
        return avoid ?? [];
    }

    private const double MostSearches = 1e12;
    private const double HighestCount = 1e15;

    /// <summary>The searches of each month.</summary>
    internal static double[] ReadMonths(ShapeRequest request)
    {
        if (request.Months is not { Count: >= YearShape.Least } months)
            throw new InvalidInputException([
                new("months", $"A year needs at least {YearShape.Least} months; there are {request.Months?.Count ?? 0}."),
            ]);
        var wrong = months
            .Select((m, i) => (m, i))
            .Where(m => m.m is not (>= 0 and <= MostSearches))
            .Select(m => new Problem($"months[{m.i}]", $"A month's searches are a number from 0 to {MostSearches:#,0}."))
            .ToList();
        return wrong.Count == 0 ? [.. months.Select(m => m!.Value)] : throw new InvalidInputException(wrong);
    }

    /// <summary>The first month.</summary>
    internal static DateOnly ReadMonth(string? from) =>
        DateOnly.TryParseExact(from, ["yyyy-MM", "yyyy-MM-dd"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var month)
        && month.Year is >= 1900 and <= 2100
            ? new(month.Year, month.Month, 1)
            : throw new InvalidInputException([new("from", "This is the first month, such as 2025-01, from 1900 to 2100.")]);

    /// <summary>A whole profile, or a stored one by its id.</summary>
    internal static async Task<Platform> ReadPlatform(JsonElement given, TinContext db, CancellationToken stop)
    {
        switch (given.ValueKind)
        {
            case JsonValueKind.Object:
                return PlatformJson.Read(given);
            case JsonValueKind.String:
                var id = TextOf(given, "platform");
                return await db.Platforms.FindAsync([id], stop) is { } row
                    ? row.Profile
                    : throw new InvalidInputException([new("platform", $"There is no platform \"{id}\".")]);
            default:
                throw new InvalidInputException([new("platform", "Give a whole profile, or the id of a stored one.")]);
        }
    }

    // A text may hold half of a character, which is no text.
    private static string TextOf(JsonElement given, string path)
    {
        try
        {
            return given.GetString()!;
        }
        catch (InvalidOperationException)
        {
            throw new InvalidInputException([new(path, "This text holds half of a character, so it is not Unicode.")]);
        }
    }

    /// <summary>Terms with their numbers, each within its bounds.</summary>
    internal static WantedTerm[] ReadTerms(IReadOnlyList<EngineTerm>? terms)
    {
        if (terms is null)
            throw new InvalidInputException([new("terms", "A list of terms is needed; it may be empty.")]);
        var problems = new List<Problem>();
        for (var i = 0; i < terms.Count; i++)
        {
            if (terms[i]?.Text is null)
                problems.Add(new($"terms[{i}].text", "A term needs its text."));
            Check(i, "volume", terms[i]?.Volume, HighestCount);
            Check(i, "competition", terms[i]?.Competition, HighestCount);
            Check(i, "headroom", terms[i]?.Headroom, 100);
        }

        return problems.Count > 0
            ? throw new InvalidInputException(problems)
            : [.. terms.Select(t => new WantedTerm(t.Text!, t.Volume, t.Competition, t.Headroom, t.Fit) { Home = t.Home })];

        void Check(int i, string key, double? value, double most)
        {
            if (value is < 0 || value > most)
                problems.Add(new($"terms[{i}].{key}", $"This is a number from 0 to {most:#,0}."));
        }
    }
}
