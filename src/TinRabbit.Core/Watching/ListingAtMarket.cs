using TinRabbit.Core.Matching;
using TinRabbit.Core.Measures;
using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Watching;

/// <summary>What a market has of a listing: every text that was sent, with the time from which its search knows it.</summary>
/// <param name="Platform">The platform that it is on.</param>
/// <param name="Sent">Every text that was sent or published there, the last one last.</param>
/// <param name="Draft">The listing as it is now in the shop.</param>
public sealed record ListingAtMarket(Platform Platform, IReadOnlyList<SentText> Sent, IReadOnlyDictionary<string, FieldValue> Draft)
{
    private static readonly IReadOnlyDictionary<string, FieldValue> Nothing = new Dictionary<string, FieldValue>();

    /// <summary>Whether it was sent or published there.</summary>
    public bool WasSent => Sent.Count > 0;

    /// <summary>The text that the search knew at a time; the shop's own where nothing was ever sent, null where the index had nothing yet.</summary>
    public IReadOnlyDictionary<string, FieldValue>? CopyAt(DateTime at) =>
        WasSent ? Sent.LastOrDefault(s => s.NoticedAt <= at)?.Copy : Draft;

    /// <summary>The text that was sent last and that the search did not know at a time; null where there is none.</summary>
    public SentText? PendingAt(DateTime at) => WasSent && Sent[^1].NoticedAt > at ? Sent[^1] : null;

    /// <summary>What a text holds of terms; of no text, nothing.</summary>
    public IReadOnlyList<WeighedTerm> Weigh(
        IReadOnlyDictionary<string, FieldValue>? copy,
        IReadOnlyList<string> terms,
        CancellationToken stop
    ) => Weigher.Weigh(Platform, copy ?? Nothing, [.. terms.Select(t => new WantedTerm(t))], stop).Terms;

    /// <summary>Weighs each term by the text that the search knew at a time of its own.</summary>
    public IReadOnlyList<WeighedTerm> WeighAt(IReadOnlyList<(string Term, DateTime At)> terms, CancellationToken stop)
    {
        var weighed = new WeighedTerm[terms.Count];
        // A text stands for many terms, and is prepared once.
        foreach (var sameText in terms.Index().GroupBy(t => CopyAt(t.Item.At), ReferenceEqualityComparer.Instance))
        {
            var some = sameText.ToList();
            var held = Weigh((IReadOnlyDictionary<string, FieldValue>?)sameText.Key, [.. some.Select(t => t.Item.Term)], stop);
            for (var i = 0; i < some.Count; i++)
                weighed[some[i].Index] = held[i];
        }

        return weighed;
    }

    /// <summary>Why a search for a term did not find the listing at a time.</summary>
    /// <param name="term">The term.</param>
    /// <param name="isHeld">Whether the text that the search knew holds the term.</param>
    /// <param name="at">When the search was made, in UTC.</param>
    /// <param name="stop">Stops the computation.</param>
    public NotFoundReason WhyNotFound(string term, bool isHeld, DateTime at, CancellationToken stop) =>
        isHeld ? (WasSent ? NotFoundReason.RulesDiffer : NotFoundReason.NotSent)
        : PendingAt(at) is { } pending && Weigh(pending.Copy, [term], stop)[0].Grade != Grade.Missing ? NotFoundReason.IndexDelay
        : NotFoundReason.WordMissing;
}
