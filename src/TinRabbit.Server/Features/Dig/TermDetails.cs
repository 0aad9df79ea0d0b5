using TinRabbit.Core.Shapes;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Shelf;

namespace TinRabbit.Server.Features.Dig;

/// <summary>Everything that is known of one term.</summary>
internal sealed class TermDetails(TinContext db, IMarket market, Shelves shelves, ChangeLog changes)
{
    private const int TopResults = 100;
    private const int ResultsShown = 8;
    private const int WordsLookedAt = 60;
    private const int WordsShown = 14;

    /// <summary>A term in a market: its numbers, its year, its family, what its results are like, and earlier numbers.</summary>
    public async Task<TermView> Load(MarketPlace place, string text, string key, CancellationToken stop)
    {
        var forms = Family.Forms(text);
        var terms = await shelves.MeasureTyped(db, place.Id, forms, stop);
        var term = terms.GetValueOrDefault(key);
        var (numbers, norm) = await shelves.Query(db, place.Id, s => (Measured.Of(term, s), s.Norm), stop);
        var isWeb = place.PlatformId == MarketPlace.Web;
        return new(
            term?.Text ?? text.Trim(),
            key,
            numbers,
            YearOf(numbers),
            FamilyOf(forms, key, terms),
            isWeb ? null
                : await market.Search(place.Id, key, TopResults, stop) is { } page ? Seen(page, key)
                : null,
            term is null ? [] : await ReadingsOf(term, stop),
            norm,
            TermMeasures.ExplainHeadroom(numbers.Volume, norm.SupplyOf(numbers.Competition, numbers.TitlesHolding), norm.Centre),
            isWeb ? await WebSearch.Of(market, place, key, stop) : null
        );
    }

    /// <summary>A term in each country of a platform, and in web search.</summary>
    public async Task<List<CountryView>> Countries(MarketPlace here, string text, string key, CancellationToken stop)
    {
        var names = await db.PlatformNames(stop);
        var forms = Family.Forms(text);
        var views = new List<CountryView>();
        foreach (var place in market.Places.Where(p => p.PlatformId == here.PlatformId || p.PlatformId == MarketPlace.Web))
        {
            var terms = await shelves.MeasureTyped(db, place.Id, forms, stop);
            var best = terms
                .Values.Where(t => t.Reading?.Volume is not null)
                .OrderByDescending(t => t.Reading!.Volume)
                .ThenByDescending(t => t.Key == key)
                .FirstOrDefault();
            var name = names.GetValueOrDefault(place.PlatformId, "Web search");
            views.Add(await shelves.Query(db, place.Id, s => CountryOf(place, name, terms.GetValueOrDefault(key), best, s), stop));
        }

        return views;
    }

    /// <summary>Saves numbers that the seller corrected; the others stay as they were.</summary>
    /// <exception cref="InvalidInputException">A number cannot be, or there is no word.</exception>
    public async Task<Measured> Correct(string marketId, Correction right, CancellationToken stop)
    {
        Check(right);
        var key = Tokens.Key(right.Text);
        var there = (await Shelves.TermsOf(db, marketId, [key], stop)).GetValueOrDefault(key);
        var (old, before) = (there?.Reading, new Dictionary<string, int?>());
        if (there is not null)
            before[key] = there.ReadingId;
        var reading = new ReadingRow
        {
            Volume = right.Volume,
            Competition = right.Competition,
            TitlesHolding = right.TitlesHolding,
            ClickCost = right.ClickCost,
            // What the form does not ask for stays.
            Popularity = old?.Popularity,
            Clicks = old?.Clicks,
            Orders = old?.Orders,
            Sales = old?.Sales,
            Months = old?.Months,
            From = old?.From,
            Source = Shelves.ByHand,
            TakenAt = db.Now,
        };
        var terms = await shelves.Save(db, marketId, [new(right.Text, reading)], stop);
        if (RemoveReadings.Of(marketId, before, terms) is { Count: > 0 } steps)
            await changes.Save(DigMessages.Corrected(right.Text), new(Screen.Dig), steps, stop);
        return await shelves.Query(db, marketId, s => Measured.Of(terms[key], s), stop);
    }

    private static CountryView CountryOf(MarketPlace place, string platform, TermRow? term, TermRow? best, ShelfColumns shelf) =>
        new(
            place.Id,
            platform,
            place.Country,
            place.CountryName,
            place.PlatformId == MarketPlace.Web,
            Measured.Of(term, shelf),
            best?.Text,
            best is null ? null : Measured.Of(best, shelf)
        );

    // The one in use first, then the newest.
    private async Task<List<OldReading>> ReadingsOf(TermRow term, CancellationToken stop) =>
        [
            .. (await db.Readings.AsNoTracking().Where(r => r.TermId == term.Id).OrderByDescending(r => r.Id).ToListAsync(stop))
                .OrderByDescending(r => r.Id == term.ReadingId)
                .Select(r => new OldReading(
                    r.Id,
                    r.Volume,
                    r.Competition,
                    r.TitlesHolding,
                    r.ClickCost,
                    r.Source,
                    r.TakenAt,
                    r.Id == term.ReadingId
                )),
        ];

    private static void Check(Correction right)
    {
        var problems = new List<Problem>();
        if (Tokens.Key(right.Text).Length == 0)
            problems.Add(new("text", "Enter a term with at least one word."));
        foreach (
            var (name, value) in new (string, decimal?)[]
            {
                ("volume", right.Volume),
                ("competition", right.Competition),
                ("titlesHolding", right.TitlesHolding),
                ("clickCost", right.ClickCost),
            }
        )
            if (value is < 0 or > 1_000_000_000_000)
                problems.Add(new(name, "Enter a number, 0 or more, or leave it empty if you don’t know it."));
        if (problems.Count > 0)
            throw new InvalidInputException(problems);
    }

    private static NamedYear? YearOf(Measured numbers) =>
        numbers is { Months: { } months, From: { } from } && YearShape.Of([.. months.Select(m => (double)m)], from) is { } y
            ? new(y.Shape, y.PeakMonths, y.Change12, y.SeasonalStrength, y.P, y.ReadyBy, y.HowSure)
            : null;

    private static List<FamilyMember> FamilyOf(IReadOnlyList<string> forms, string key, Dictionary<string, TermRow> terms)
    {
        var keys = forms.Select(Tokens.Key).Distinct().Where(k => k == key || terms.ContainsKey(k)).ToList();
        var top = keys.Max(k => terms.GetValueOrDefault(k)?.Reading?.Volume);
        return
        [
            .. keys.Select(k => (Key: k, Row: terms.GetValueOrDefault(k)))
                .Select(f => new FamilyMember(
                    f.Row?.Text ?? f.Key,
                    f.Key,
                    f.Row?.Reading?.Volume,
                    f.Row?.Reading?.Competition,
                    top > 0 && f.Row?.Reading?.Volume == top
                ))
                .OrderByDescending(f => f.Volume ?? -1),
        ];
    }

    private static SeenResults Seen(SearchPage page, string key)
    {
        var all = page.Ranked().ToList();
        var prices = all.Where(r => r.Price is not null).Select(r => r.Price!.Value + (r.Shipping ?? 0)).Order().ToArray();
        decimal At(double share) => prices[(int)Math.Round(share * (prices.Length - 1))];
        // Leaves out the words of the term itself.
        var own = key.Split(' ').ToHashSet();
        var words = SellersUse.TermsOf(page, WordsLookedAt).Where(w => !w.Split(' ').All(own.Contains)).ToList();
        return new(
            page.Found,
            all.Count,
            page.Results.Count - all.Count,
            prices.Length == 0 ? [] : [At(0), At(0.25), At(0.5), At(0.75), At(1)],
            all.Exists(r => r.Shipping is not null) ? all.Count(r => r.Shipping == 0) / (double)all.Count : null,
            Median(all.Select(r => (double?)r.Ratings)),
            all.Average(r => r.Rating),
            all.Average(r => r.Photos),
            Median(all.Select(r => (double?)r.Sales)),
            all.Average(r => r.Occupancy),
            [.. page.Results.Take(ResultsShown)],
            [
                .. words
                    .Zip(SellersUse.Of(page, words), (w, u) => new UsedWord(w, u?.Count ?? 0))
                    .OrderByDescending(w => w.Count)
                    .Take(WordsShown),
            ],
            page.Related,
            page.Seen
        );

        static double? Median(IEnumerable<double?> values) => QuickSelect.Median([.. values.OfType<double>()]);
    }
}
