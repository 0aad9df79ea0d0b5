using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Pick;

/// <summary>Terms to translate and measure.</summary>
/// <param name="Language">BCP 47 tag.</param>
/// <param name="Texts">The terms, one a line where <paramref name="Column"/> is given.</param>
/// <param name="Column">The same terms in that language, one a line, aligned with them; null to use the glossary that ships.</param>
public sealed record LanguageRequest(
    string MarketId,
    [MaxLength(20)] string Language,
    [Term, MaxLength(Bounds.TermsAtOnce)] IReadOnlyList<string> Texts,
    [MaxLength(Bounds.PasteLength)] string? Column
);

/// <summary>A term in a second language, measured.</summary>
/// <param name="To">Null where the glossary lacks a word, or the column's line is empty.</param>
/// <param name="Unknown">The words that the glossary lacks.</param>
/// <param name="Typed">Whether it has searches there.</param>
public sealed record TranslatedTerm(string From, string? To, IReadOnlyList<string> Unknown, bool Typed, Measured Numbers);

internal static class LanguageApi
{
    public static void MapLanguage(this IEndpointRouteBuilder app)
    {
        app.MapGet("/api/languages", GetLanguages);
        app.MapPost("/api/language", TurnTerms);
    }

    private static IReadOnlyCollection<string> GetLanguages() => Glossary.Languages;

    private static async Task<List<TranslatedTerm>> TurnTerms(
        LanguageRequest request,
        TinContext db,
        Shelves shelves,
        CancellationToken stop
    )
    {
        var turned = Translate(request);
        var terms = await shelves.MeasureTyped(db, request.MarketId, [.. turned.Select(t => t.To).OfType<string>()], stop);
        return await shelves.Query(
            db,
            request.MarketId,
            s => turned.Select(t => View(t, t.To is null ? null : terms.GetValueOrDefault(Tokens.Key(t.To)), s)).ToList(),
            stop
        );
    }

    private static TranslatedTerm View(Translation t, TermRow? term, ShelfColumns shelf) =>
        new(t.From, t.To, t.Unknown, term is not null, term is null ? Measured.Nothing : Measured.Of(term, shelf));

    private static List<Translation> Translate(LanguageRequest request)
    {
        if (request.Column is null)
            return Glossary.Languages.Contains(request.Language)
                ? [.. request.Texts.Select(t => Glossary.Translate(t, request.Language))]
                : throw new InvalidInputException([new("language", $"No glossary for “{request.Language}”. Paste your own translations.")]);
        var lines = request.Column.ReplaceLineEndings("\n").Split('\n');
        while (lines.Length > request.Texts.Count && lines[^1].Length == 0)
            lines = lines[..^1];
        if (lines.Length != request.Texts.Count)
            throw new InvalidInputException([
                new(
                    "column",
                    $"{lines.Length} lines for {request.Texts.Count} terms. Enter one line for each term, and leave it empty where there is no translation."
                ),
            ]);
        return [.. request.Texts.Zip(lines, (from, to) => new Translation(from, Tokens.Of(to).Count > 0 ? to.Trim() : null, []))];
    }
}
