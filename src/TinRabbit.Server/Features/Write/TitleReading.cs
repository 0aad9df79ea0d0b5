using TinRabbit.Core.Filling;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Write;

/// <summary>What a title holds, and what it could hold with its own words in another order.</summary>
internal static class TitleReading
{
    private const int MostShown = 60;

    /// <summary>The terms of a title in the draft of a listing: what another order gains counts all picks.</summary>
    public static TextReadView Of(OpenDraft open, string text, TextRead read, CancellationToken stop)
    {
        var title = open.Platform.Role("title");
        var now = Grip(open, title, text, stop);
        var could = read
            .Could.Take(MostShown)
            .Select(t =>
            {
                var other = Reorder.MakeContiguous(text, t.Text, open.Platform.Search.Folds, title?.Separator ?? ", ");
                var readsWell = other is not null && Reorder.ReadsWell(text, t.Text, other, title?.Separator ?? ", ");
                return new CouldHold(t, other, readsWell ? Grip(open, title, other!, stop) - now : null);
            });
        return new(
            [.. read.Holds.Take(MostShown)],
            [.. could.Where(c => c.Gain >= 0).OrderByDescending(c => Math.Round(c.Gain!.Value, 1)).ThenByDescending(c => c.Term.Volume)],
            CompetitionMix.Of(read.Holds)
        );
    }

    private static double? Grip(OpenDraft open, Field? title, string text, CancellationToken stop) =>
        title is null
            ? null
            : Weigher
                .Weigh(
                    open.Picks.Terms,
                    new Dictionary<string, FieldValue>(open.Copy) { [title.Key] = new FieldValue.Text(text) },
                    open.Picks.Wanted,
                    stop
                )
                .Grip;
}
