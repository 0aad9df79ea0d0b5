using AngleSharp.Dom;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>
/// Finds the records of a page by their structure, whatever its classes are called: sibling subtrees, or subtrees under siblings, of alike
/// shape. Of several such regions the one with the most text in titles and prices has the results. (Mining data records: Liu, Grossman and
/// Zhai 2003; Zhai and Liu 2005.)
/// </summary>
internal sealed class RecordRegions(CancellationToken stop)
{
    private const double Alike = 0.5;
    private const int Depth = 5;
    private const int PriceWeight = 40;
    private const int TitleWeight = 120;
    private const int MostBesideHeading = 40;

    private readonly Dictionary<IElement, Dictionary<string, int>> _shapes = new(ReferenceEqualityComparer.Instance);

    /// <summary>Records that are alike, in the order of the page.</summary>
    /// <param name="Records">The records.</param>
    /// <param name="Score">How much text stands in their titles and prices.</param>
    public sealed record Region(IReadOnlyList<PageRecord> Records, double Score);

    /// <summary>The results of a page; null where nothing on it is alike.</summary>
    public Region? Results(IElement body)
    {
        Region? best = null;
        foreach (var records in Candidates(body))
        {
            stop.ThrowIfCancellationRequested();
            if (Scored(records) is { } region && region.Score > (best?.Score ?? 0))
                best = region;
        }

        return best is null ? null : Completed(best);
    }

    private IEnumerable<IReadOnlyList<PageRecord>> Candidates(IElement body)
    {
        foreach (var parent in Visible.Under([body], IsAround))
        {
            stop.ThrowIfCancellationRequested();
            if (parent.ChildElementCount < 2)
                continue;
            foreach (var group in Groups(parent))
            {
                yield return [.. group.Select(e => new PageRecord(e))];
                // Rows of several: the records stand under siblings that are alike.
                if (UnderRows(parent, group) is { Count: > 0 } rows)
                    yield return [.. rows.Select(e => new PageRecord(e))];
            }

            if (Flat(parent) is { Count: > 1 } flat)
                yield return flat;
        }
    }

    // Menus, filters and what is around a page have no results.
    private static bool IsAround(IElement element) =>
        element.LocalName is "nav" or "footer" or "form" or "button"
        || element.GetAttribute("role") is "navigation" or "contentinfo" or "menu";

    private List<List<IElement>> Groups(IElement parent)
    {
        var groups = new List<List<IElement>>();
        foreach (var child in parent.Children.Where(c => !Visible.IsHidden(c)))
        {
            var shape = ShapeOf(child);
            if (shape.Count < 2)
                continue;
            if (groups.FirstOrDefault(g => g[0].LocalName == child.LocalName && Likeness(ShapeOf(g[0]), shape) >= Alike) is { } alike)
                alike.Add(child);
            else
                groups.Add([child]);
        }

        return [.. groups.Where(g => g.Count > 1)];
    }

    private List<IElement> UnderRows(IElement parent, List<IElement> rows)
    {
        var inner = rows.Select(Inner).ToList();
        var largest = inner.SelectMany(r => Groups(r)).MaxBy(g => g.Count);
        if (largest is null)
            return [];
        var shape = ShapeOf(largest[0]);
        // The last row may have one alone.
        return
        [
            .. parent
                .Children.Where(c => !Visible.IsHidden(c))
                .SelectMany(c =>
                    c.ChildElementCount == 1 && Likeness(ShapeOf(c.Children[0]), shape) >= Alike ? c.Children : Inner(c).Children
                )
                .Where(c => c.LocalName == largest[0].LocalName && Likeness(ShapeOf(c), shape) >= Alike),
        ];
    }

    private static IElement Inner(IElement element)
    {
        while (element.ChildElementCount == 1 && Visible.Own(element).Length == 0)
            element = element.Children[0];
        return element;
    }

    // Titles, prices and the rest one after the other, with nothing around each listing.
    private static List<PageRecord> Flat(IElement parent)
    {
        var heads = parent.Children.Where(c => c.LocalName is "h2" or "h3" or "h4" or "h5" or "dt" && Visible.Text(c).Length > 2).ToList();
        if (heads.Count < 2 || parent.Children.Length < 2 * heads.Count)
            return [];
        var name = heads.CountBy(h => h.LocalName).MaxBy(h => h.Value).Key;
        var records = new List<PageRecord>();
        List<IElement>? current = null;
        foreach (var child in parent.Children.Where(c => !Visible.IsHidden(c)))
            if (child.LocalName == name)
                records.Add(new(current = [child]));
            else if (child.LocalName is "h1" or "h2" or "hr" or "nav" or "section")
                current = null;
            else
                current?.Add(child);
        return records;
    }

    private static Region? Scored(IReadOnlyList<PageRecord> records)
    {
        if (records.Count < 2 || IsAside(records[0].Roots[0]))
            return null;
        var (score, priced, titled) = (0.0, 0, 0);
        foreach (var record in records.Take(PageReader.MostResults))
        {
            var title = record.Title;
            if (title.Length == 0 || PageWords.IsAside(title) || PageWords.IsRelated(title))
                continue;
            titled++;
            score += Math.Min(TitleWeight, title.Length);
            if (!record.HasPrice)
                continue;
            priced++;
            score += PriceWeight;
        }

        // Results mostly have prices; where none has, each has a title of some length and more text than that.
        if (titled * 2 < Math.Min(PageReader.MostResults, records.Count) || (priced > 0 && priced * 2 < titled))
            return null;
        if (priced == 0)
            score =
                records.Count(r => r.Title.Length > 0 && r.Text.Length > r.Title.Length + 20) * 2 >= records.Count && score / titled > 15
                    ? score / 3
                    : 0;
        return score > 0 ? new(records, score) : null;
    }

    // A heading just before says that the search did not find these.
    private static bool IsAside(IElement first)
    {
        for (var at = first; at.ParentElement is { } parent && parent.LocalName != "body"; at = parent)
        {
            if (parent.LocalName is "aside" or "footer" or "nav")
                return true;
            if (parent.GetAttribute("aria-label") is { } label && (PageWords.IsAside(label) || PageWords.IsRelated(label)))
                return true;
            for (var before = at.PreviousElementSibling; before is not null; before = before.PreviousElementSibling)
            {
                var heading = before.LocalName is ['h', >= '1' and <= '6'] ? before : before.QuerySelector("h1, h2, h3, h4, h5, h6");
                if (heading is null && Visible.Text(before) is { Length: > 0 and < 60 } text && before.ChildElementCount == 0)
                {
                    if (PageWords.IsAside(text) || PageWords.IsRelated(text))
                        return true;
                    continue;
                }

                if (heading is null)
                    break;
                var says = Visible.Text(heading);
                // A heading with a whole list below it is over that list.
                if (Visible.Text(before).Length <= says.Length + MostBesideHeading)
                    return PageWords.IsAside(says) || PageWords.IsRelated(says);
                break;
            }
        }

        return false;
    }

    // Records that look another way, such as ads, stand between the others; what is no listing does not come with them.
    private static Region Completed(Region region)
    {
        if (region.Records.Any(r => r.Roots.Count > 1))
            return region;
        var known = region.Records.ToDictionary(r => r.Roots[0]);
        var most = 3 * region.Records.Select(r => r.Text.Length).Order().ElementAt(region.Records.Count / 2);
        var hasPrices = region.Records.Count(r => r.HasPrice) * 5 >= region.Records.Count * 4;
        var records = new List<PageRecord>();
        foreach (var parent in region.Records.Select(r => r.Roots[0].ParentElement!).Distinct())
        foreach (var child in parent.Children.Where(c => !Visible.IsHidden(c)))
            if (known.TryGetValue(child, out var record))
                records.Add(record);
            else if (
                new PageRecord(child) is { Title.Length: > 2 } other
                && other.Text.Length <= most
                && (other.HasPrice || !hasPrices)
                && IsOne(child)
            )
                records.Add(other);
        return region with { Records = [.. records.Where(r => r.Title.Length > 0 && (r.HasPrice || !hasPrices || HasLink(r)))] };
    }

    private static bool HasLink(PageRecord record) => record.Roots.Any(r => r.LocalName == "a" || r.QuerySelector("a[href]") is not null);

    private static bool IsOne(IElement element) =>
        HasLink(new(element))
        && element.QuerySelectorAll("a[href]").Select(a => a.GetAttribute("href")).Distinct().Count() <= 3
        && element.QuerySelector("input, textarea") is null;

    // How often each element stands at each depth below: two records are alike where these agree.
    private Dictionary<string, int> ShapeOf(IElement element)
    {
        if (_shapes.TryGetValue(element, out var shape))
            return shape;
        _shapes[element] = shape = new(StringComparer.Ordinal);
        Add(element, 0, shape);
        return shape;

        static void Add(IElement at, int depth, Dictionary<string, int> shape)
        {
            var key = $"{depth}{at.LocalName}";
            shape[key] = shape.GetValueOrDefault(key) + 1;
            if (depth < Depth)
                foreach (var child in at.Children)
                    Add(child, depth + 1, shape);
        }
    }

    // Weighted Jaccard likeness; how many of one kind there are counts little.
    private static double Likeness(Dictionary<string, int> one, Dictionary<string, int> other)
    {
        var (both, all) = (0.0, 0.0);
        foreach (var (key, count) in one)
        {
            var there = other.GetValueOrDefault(key);
            both += Math.Log(1 + Math.Min(count, there));
            all += Math.Log(1 + Math.Max(count, there));
        }

        foreach (var (key, count) in other)
            if (!one.ContainsKey(key))
                all += Math.Log(1 + count);
        return both / all;
    }
}
