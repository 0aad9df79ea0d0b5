using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Recordings;

namespace TinRabbit.Server.Features.Dig;

/// <summary>What a market's search box offered for what was typed, in its order.</summary>
internal sealed class SuggestionsDrop(TinContext db) : IDropKind
{
    private const int Most = 200;

    public string Id => "suggestions";

    public string Name => "Search suggestions";

    public double? Fits(DropContent content) =>
        content.Page is { Kind: ReadKind.Suggestions } page
            ? (content.IsHtml || page.Query is not null || content.Context.Term is not null ? 0.85 : 0.6)
        : Lines(content).Count > 1 ? 0.3
        : null;

    public Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var offered = Lines(thing.Content);
        var term = TermOf(thing, offered);
        return Task.FromResult(
            new DropShown(
                term is null ? "Search suggestions" : $"Search suggestions for “{term}”",
                [new("Suggestions", $"{offered.Count:#,0}, in this order")],
                ["", "Suggestion"],
                [.. offered.Take(DropShown.MostRows).Select((t, i) => new DropRow([$"{i + 1}", t]))],
                offered.Count,
                [],
                offered.Count == 0 ? "There is no suggestion in it."
                    : term is null ? "What was typed in the search box? Enter the term."
                    : null,
                term,
                NeedsTerm: true,
                HasDay: true
            )
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        List<RecordingRow> rows =
        [
            .. things
                .Select(t => (Thing: t, Offered: Lines(t.Content)))
                .Select(t => new RecordingRow
                {
                    MarketId = t.Thing.Market.Id,
                    Kind = RecordingKind.Suggestions,
                    Term = TermOf(t.Thing, t.Offered)!,
                    Key = Tokens.Key(TermOf(t.Thing, t.Offered)!),
                    Day = t.Thing.Day,
                    Source = t.Thing.Content.Source,
                    Page = new(ReadKind.Suggestions, null, null, [], [], null, t.Offered, []),
                }),
        ];
        db.Recordings.AddRange(rows);
        await db.SaveChangesAsync(stop);
        return [RemoveRows.Of<RecordingRow>(rows.Select(r => r.Id))];
    }

    private static List<string> Lines(DropContent content)
    {
        var texts = content.Page is { Suggestions.Count: > 0 } page
            ? page.Suggestions
            : (content.Text ?? "").Split('\n').Select(l => l.Trim().TrimStart('•', '-', '*', '·').Trim());
        return
        [
            .. texts.Where(t => t.Length is > 0 and <= Bounds.TermLength && Tokens.Key(t).Length > 0).DistinctBy(Tokens.Key).Take(Most),
        ];
    }

    // What was typed is the term that is looked up, the name of the file where the suggestions have its words, or the words that all begin with.
    private static string? TermOf(DroppedThing thing, List<string> offered)
    {
        var given = thing.Choice.Term ?? thing.Content.Page?.Query ?? thing.Content.Context.Term;
        if (given?.Trim() is { Length: > 0 } term)
            return Tokens.Key(term).Length > 0 ? term : null;
        var named = Path.GetFileNameWithoutExtension(thing.Content.Source);
        if (Tokens.Key(named) is { Length: > 0 } key && offered.Count(o => Holds(o, key)) * 2 >= offered.Count)
            return named;
        if (offered.Count < 2)
            return null;
        var words = offered.ConvertAll(o => o.Split(' ', StringSplitOptions.RemoveEmptyEntries));
        var common = words[0]
            .TakeWhile((w, i) => words.TrueForAll(o => i < o.Length && string.Equals(o[i], w, StringComparison.OrdinalIgnoreCase)));
        return string.Join(' ', common) is { Length: > 0 } shared ? shared : null;
    }

    private static bool Holds(string offered, string key) => key.Split(' ').All(Tokens.Key(offered).Split(' ').Contains);
}
