namespace TinRabbit.Market.StandIn;

/// <content>The clock, and what happens to listings that were sent as days pass.</content>
public sealed partial class StandInMarket
{
    private long _ahead;

    /// <inheritdoc/>
    public DateTime Now => _clock.GetUtcNow().UtcDateTime + TimeSpan.FromTicks(Interlocked.Read(ref _ahead));

    /// <inheritdoc/>
    public bool CanMoveClock => true;

    /// <inheritdoc/>
    public void MoveClock(TimeSpan by)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(by, TimeSpan.Zero);
        Interlocked.Add(ref _ahead, by.Ticks);
    }

    /// <inheritdoc cref="IMarket.Find"/>
    public IReadOnlyList<FoundAt> Find(string marketId, string id, IReadOnlyList<string> terms) => FindAt(marketId, id, terms, Now);

    /// <summary>Where searches found a listing at an earlier time; a source of real numbers can't say that.</summary>
    public IReadOnlyList<FoundAt> FindAt(string marketId, string id, IReadOnlyList<string> terms, DateTime at)
    {
        if (Made(marketId).Rivals is not { } rivals)
            throw new MarketException("The sample data can’t look for your pages in a web search. Paste or import what you found.");
        var scores = DaysOf(marketId, id)?.Scores(terms, at) ?? new double?[terms.Count];
        var others = _sent.Keys.Where(k => k.Market == marketId && k.Id != id).Select(k => DaysOf(marketId, k.Id)!);
        var otherScores = others.Select(o => o.Scores(terms, at)).ToList();
        return
        [
            .. terms.Select(
                (term, i) =>
                {
                    var results = rivals.Count(term).Found + otherScores.Count(o => o[i] is not null);
                    return scores[i] is { } score
                        ? new FoundAt(true, 1 + rivals.Above(term, score) + otherScores.Count(o => o[i] > score), results + 1)
                        : new FoundAt(false, null, results);
                }
            ),
        ];
    }

    /// <inheritdoc cref="IMarket.Figures"/>
    public IReadOnlyList<DayFigures> Figures(string marketId, string id, DateOnly from, DateOnly to)
    {
        _ = Made(marketId);
        var yesterday = DateOnly.FromDateTime(Now).AddDays(-1);
        return DaysOf(marketId, id) is { } days ? [.. days.Until(to < yesterday ? to : yesterday).Where(d => d.Day >= from)] : [];
    }

    // One for each listing that was sent; another once it was sent again.
    private ListingDays? DaysOf(string marketId, string id)
    {
        if (!_sent.TryGetValue((marketId, id), out var states))
            return null;
        List<(DateTime Noticed, Sending Listing)> sent;
        lock (states)
            sent = [.. states.OrderBy(s => s.At).Select(s => (s.Noticed, s.Listing))];
        return _days.AddOrUpdate((marketId, id), _ => Make(), (_, known) => known.States == sent.Count ? known : Make()).Days.Value;

        (int, Lazy<ListingDays>) Make()
        {
            var (log, rivals) = Made(marketId);
            var platform = _platforms[Places.First(p => p.Id == marketId).PlatformId];
            var ofMarket = _random.For(marketId);
            // Chance depends on the first title, not on the number: the demo's listings have the same days in every shop.
            var own = ofMarket.For("own").For(TitleOf(sent[0].Listing));
            return (sent.Count, new(() => new(platform, log, rivals!, sent, IsStay(marketId), ofMarket, own)));
        }
    }
}
