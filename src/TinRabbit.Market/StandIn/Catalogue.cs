using System.Collections.Concurrent;
using TinRabbit.Core;
using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Market.StandIn;

/// <summary>The rival listings of one market, and which of them its search finds.</summary>
internal sealed class Catalogue
{
    private readonly Folds _folds;
    private readonly HashSet<string> _ignored;
    private readonly Dictionary<string, List<int>> _byWord = new(StringComparer.Ordinal);
    private readonly List<SearchedText> _texts = [];
    private readonly int _attributes;

    // The scores of a search's results, sorted; asked for day after day.
    private readonly ConcurrentDictionary<string, double[]> _scores = new(StringComparer.Ordinal);

    public Catalogue(Platform platform, QueryLog log, Vocabulary vocabulary, int listings, DeterministicRandom random)
    {
        _folds = platform.Search.Folds;
        _ignored = [.. platform.Search.IgnoredWords];
        _attributes = Math.Max(1, platform.Fields.Sum(f => f.Attributes.Count));
        var maker = new Maker(platform, log, vocabulary);
        Listings = [.. Enumerable.Range(0, listings).Select(i => maker.Make($"r{i}", random.For(i)))];
        for (var i = 0; i < Listings.Count; i++)
        {
            var rival = Listings[i];
            _texts.Add(new(rival.Title, rival.Tags));
            foreach (
                var word in rival
                    .Tags.Concat(rival.Bullets)
                    .Append(rival.Title)
                    .SelectMany(Tokens.Of)
                    .Select(t => Fold.Key(t.Word, _folds))
                    .Distinct()
            )
            {
                if (!_byWord.TryGetValue(word, out var list))
                    _byWord[word] = list = [];
                list.Add(i);
            }
        }
    }

    public IReadOnlyList<RivalListing> Listings { get; }

    /// <summary>How many listings a search finds, and in how many titles the phrase stands.</summary>
    public (long Found, long Titles) Count(string term)
    {
        var phrase = $" {Tokens.Key(term)} ";
        var (found, titles) = (0L, 0L);
        foreach (var rival in Holding(term))
        {
            found += Listings[rival].Alike;
            if (_texts[rival].Title.Contains(phrase, StringComparison.Ordinal))
                titles += Listings[rival].Alike;
        }

        return (found, titles);
    }

    /// <summary>What a search finds, best first: where the words stand and how whole, what sells, what is fresh and complete.</summary>
    /// <param name="term">What is searched for.</param>
    /// <param name="most">How many to give.</param>
    /// <param name="sent">Listings that sellers sent and that the term finds, with their scores.</param>
    public IReadOnlyList<RivalListing> Ranked(string term, int most, IEnumerable<(RivalListing Listing, double Score)> sent)
    {
        var phrase = new SearchedPhrase(term);
        return
        [
            .. Holding(term)
                .Select(i => (Listing: Listings[i], Score: Score(i, phrase)))
                .Concat(sent)
                .OrderByDescending(r => r.Score)
                .Take(most)
                .Select(r => r.Listing),
        ];
    }

    /// <summary>How many listings a search ranks above a score.</summary>
    public int Above(string term, double score)
    {
        var scores = _scores.GetOrAdd(
            term,
            _ =>
            {
                var phrase = new SearchedPhrase(term);
                double[] all = [.. Holding(term).Select(i => -Score(i, phrase))];
                Array.Sort(all);
                return all;
            }
        );
        // The best first, with the sign turned: those below −score are above score.
        var at = Array.BinarySearch(scores, -score);
        return at < 0 ? ~at : at;
    }

    /// <summary>The score of a listing: its fields, monthly sales, days since it began, and how complete it is, 0–1.</summary>
    public static double Score(double fields, double sales, double ageDays, double completeness) =>
        fields + 0.35 * Math.Log(1 + sales) + 0.5 * Math.Exp(-ageDays / 60.0) + 0.4 * completeness;

    private double Score(int number, SearchedPhrase phrase)
    {
        var rival = Listings[number];
        var completeness = 0.5 * Math.Min(1, rival.Photos / 8.0) + 0.5 * Math.Min(1, rival.Attributes.Count / (double)_attributes);
        return Score(_texts[number].Score(phrase), rival.Sales, rival.AgeDays, completeness);
    }

    // The listings that have every word of the term somewhere, in order.
    private IEnumerable<int> Holding(string term)
    {
        var lists = new List<List<int>>();
        foreach (var word in Tokens.Of(term).Select(t => t.Word).Where(w => !_ignored.Contains(w)))
            if (_byWord.TryGetValue(Fold.Key(word, _folds), out var list))
                lists.Add(list);
            else
                return [];
        lists.Sort((a, b) => a.Count.CompareTo(b.Count));
        return lists.Count == 0 ? [] : lists[0].Where(rival => lists.Skip(1).All(l => l.BinarySearch(rival) >= 0));
    }

    // Writes listings the way sellers do.
    private sealed class Maker(Platform platform, QueryLog log, Vocabulary vocabulary)
    {
        private readonly Dictionary<string, IReadOnlyList<string>> _near = [];
        private readonly List<Head> _longestFirst = [.. vocabulary.Heads.OrderByDescending(h => h.Text.Length)];
        private readonly Dictionary<Head, List<Modifier>> _words = vocabulary.Heads.ToDictionary(
            h => h,
            h => vocabulary.Modifiers.Where(m => m.Groups.Intersect(h.Groups).Any()).ToList()
        );

        public RivalListing Make(string id, DeterministicRandom random)
        {
            // Sellers follow demand, but not closely: they copy what is typed much, and each other.
            Query Some(string why) => log.Queries[(int)(log.Queries.Count * Math.Pow(random.For(why).Uniform, 2.2))];
            var lead = Some("lead");
            var head = _longestFirst.FirstOrDefault(h => lead.Text.Contains(h.Text, StringComparison.Ordinal)) ?? vocabulary.Heads[0];
            var words = _words[head];
            var extra = Enumerable
                .Range(0, 2 + random.For("extras").Below(4))
                .Select(i => words.Count == 0 ? "" : words[random.For("extra").For(i).Below(words.Count)].Text)
                .Distinct();
            var title = string.Join(
                ", ",
                extra
                    .Prepend(lead.Text)
                    .Append(random.For("also").Uniform < 0.5 ? Near(head, random) : "")
                    .Where(t => t.Length > 0)
                    .Select(Capitals.First)
            );
            var room = platform.Find("title")?.Limit?.Max ?? 120;
            var tags = Enumerable
                .Range(0, 5 + random.For("tags").Below(8))
                .Select(i => i < 7 ? Near(head, random.For(i)) : Some($"tag{i}").Text)
                .Where(t => t.Length <= 24)
                .Distinct()
                .ToList();
            var bullets = platform.Find("bullets") is null
                ? []
                : Enumerable.Range(0, 3).Select(i => $"{Capitals.First(Near(head, random.For(100 + i)))} for the garden").ToList();
            var price = Math.Round((decimal)(18 * Math.Exp(0.5 * random.For("price").Normal)), 2);
            return new(
                id,
                head.Groups,
                vocabulary.Shops[random.For("shop").Below(vocabulary.Shops.Count)],
                title.Length > room ? title[..room] : title,
                platform.Find("tags") is null ? [] : tags,
                bullets,
                price,
                random.For("ships").Uniform < 0.42 ? 0 : Math.Round(price * 0.2m, 2),
                Math.Round(Math.Min(5, 4.55 + 0.3 * random.For("rating").Normal), 1),
                (int)Math.Exp(3.5 + 1.6 * random.For("ratings").Normal),
                1 + random.For("photos").Below(10),
                (int)Math.Exp(2.5 + 1.4 * random.For("sales").Normal),
                Math.Clamp(0.55 + 0.18 * random.For("nights").Normal, 0.05, 0.97),
                1 + (int)Math.Exp(1.1 + 1.0 * random.For("alike").Normal),
                (int)(900 * Math.Pow(random.For("age").Uniform, 2)),
                Attributes(random.For("attributes"))
            );
        }

        // Some attributes nearly everybody fills, others hardly anybody.
        private Dictionary<string, string> Attributes(DeterministicRandom random) =>
            platform
                .Fields.SelectMany(f => f.Attributes)
                .Where(a =>
                    a.Options.Count > 0
                    && random.For(a.Name).Uniform < 0.25 + 0.7 * new DeterministicRandom(7).For(platform.Id).For(a.Name).Uniform
                )
                .ToDictionary(a => a.Name, a => a.Options[random.For(a.Name).For("value").Below(a.Options.Count)]);

        private string Near(Head head, DeterministicRandom random)
        {
            var first = head.Text.Split(' ')[0];
            if (!_near.TryGetValue(first, out var like))
                _near[first] = like = log.StartingWith(first, 60);
            return like.Count == 0 ? head.Text : like[(int)(like.Count * Math.Pow(random.For("near").Uniform, 1.5))];
        }
    }
}
