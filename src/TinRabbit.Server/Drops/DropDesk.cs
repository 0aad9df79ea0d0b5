using System.Net;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Drops;

/// <summary>Something that was dropped, and what is to be done with it.</summary>
/// <param name="Files">The files, in order.</param>
/// <param name="TextId">For what was pasted as HTML, the first of the files, the file with the same as text.</param>
/// <param name="MarketId">The market that is worked in.</param>
/// <param name="Choices">What the seller corrected.</param>
/// <param name="ListingId">The listing that is worked on.</param>
/// <param name="Term">The term that is looked up.</param>
/// <param name="Screen">The screen that is open: what is added there is undone there.</param>
public sealed record DropsRequest(
    [MaxLength(DropDesk.MostFiles)] IReadOnlyList<string> Files,
    [MaxLength(Bounds.NameLength)] string MarketId,
    [MaxLength(Bounds.NameLength)] string? TextId = null,
    [MaxLength(DropDesk.MostFiles)] IReadOnlyList<DropChoice>? Choices = null,
    int? ListingId = null,
    [Term] string? Term = null,
    [MaxLength(20)] string? Screen = null
);

/// <summary>Looks at what was dropped, and adds it: all of it or nothing, with one undo.</summary>
internal sealed class DropDesk(
    TinContext db,
    DataFolder data,
    IMarket market,
    PictureFiles pictures,
    IEnumerable<IDropKind> kinds,
    ChangeLog changes
)
{
    /// <summary>The most files that are looked at together.</summary>
    public const int MostFiles = 1_000;

    private readonly IReadOnlyList<IDropKind> _kinds = [.. kinds];

    /// <summary>What adding everything would add. Nothing is written.</summary>
    public async Task<List<DropView>> Look(DropsRequest request, CancellationToken stop)
    {
        var views = new List<DropView>();
        var places = await Places(stop);
        foreach (var content in await Contents(request, stop))
        {
            var choice = ChoiceOf(request, content.File.Id);
            var (kind, kinds, problem) = await KindOf(content, choice, stop);
            var thing = ThingOf(content, choice, places, request.MarketId, _ => null);
            views.Add(
                new(
                    content.File.Id,
                    content.File.Name,
                    kind?.Id,
                    [.. kinds.Select(k => new DropKindName(k.Id, k.Name))],
                    problem is not null ? Nothing(problem) : await ShownOf(kind, thing, stop),
                    thing.Market.Id,
                    thing.Day,
                    choice.IsOut
                )
            );
        }

        return views;
    }

    /// <summary>Adds everything that is not left out.</summary>
    /// <exception cref="InvalidInputException">Something cannot be added; nothing is, then.</exception>
    public async Task<Changed> Add(DropsRequest request, CancellationToken stop)
    {
        if (request.Choices?.FirstOrDefault(c => c.Day > market.LastDay) is not null)
            throw new InvalidInputException([new("day", "Enter today or a day before.")]);
        var screen = ChangesHere.ScreenOf(request.Screen) ?? (request.ListingId is null ? Screen.Listings : Screen.Dig);
        var contents = await Contents(request, stop);
        var stored = await StorePictures(request, contents, stop);
        var steps = new List<IUndoStep>();
        var titles = new List<string>();
        ChangeRow? change = null;
        await db.InOneWrite(
            async () =>
            {
                foreach (var (kind, things) in await Things(contents, request, stored, titles, stop))
                    steps.AddRange((await kind.Add(things, stop)).Where(s => s is not RemoveRows { Keys.Count: 0 }));
                if (steps.Count > 0)
                    change = changes.Note(
                        DropMessages.Added(titles),
                        new(screen, request.ListingId is { } listing ? await db.ProductOf(listing, stop) : null, request.ListingId),
                        steps
                    );
                await db.SaveChangesAsync(stop);
            },
            stop
        );
        DropFiles.Remove(data, request.TextId is { } also ? [.. request.Files, also] : request.Files);
        return new(change?.What, change?.Id);
    }

    // Everything that is to be added, by its kind.
    private async Task<List<(IDropKind Kind, List<DroppedThing> Things)>> Things(
        IEnumerable<DropContent> contents,
        DropsRequest request,
        Dictionary<string, string> stored,
        List<string> titles,
        CancellationToken stop
    )
    {
        var byKind = new List<(IDropKind Kind, List<DroppedThing> Things)>();
        var places = await Places(stop);
        foreach (var content in contents)
        {
            var choice = ChoiceOf(request, content.File.Id);
            if (choice.IsOut)
                continue;
            var (kind, _, problem) = await KindOf(content, choice, stop);
            if (problem is not null || kind is null)
                throw Wrong(content, problem ?? "It was not recognised. Choose what it is, or leave it out.");
            var thing = ThingOf(
                content,
                choice,
                places,
                request.MarketId,
                address => NamesOf(content.File.Name, address).Select(stored.GetValueOrDefault).FirstOrDefault(p => p is not null)
            );
            var shown = await ShownOf(kind, thing, stop);
            if (shown.Problem is { } why)
                throw Wrong(content, why);
            titles.Add(shown.Title);
            if (!byKind.Exists(k => k.Kind == kind))
                byKind.Add((kind, []));
            byKind.First(k => k.Kind == kind).Things.Add(thing);
        }

        // Listings first: what else is added may be of them.
        return [.. byKind.OrderByDescending(k => k.Kind.Id == "listings")];
    }

    private DroppedThing ThingOf(
        DropContent content,
        DropChoice choice,
        IReadOnlyList<MarketPlace> places,
        string marketId,
        Func<string, string?> pictureOf
    ) => new(content, choice, PlaceOf(places, choice.MarketId ?? marketId), choice.Day ?? market.Today, pictureOf);

    private async Task<List<DropContent>> Contents(DropsRequest request, CancellationToken stop)
    {
        var place = PlaceOf(await Places(stop), request.MarketId);
        var shop = await db.Shops.OrderBy(s => s.Id).Select(s => s.Name).FirstAsync(stop);
        var context = new DropContext(shop, place, request.ListingId, request.Term);
        var contents = new List<DropContent>();
        foreach (var id in request.Files.Distinct())
        {
            var (path, name) = await DropFiles.Find(data, id, stop) ?? throw new NotThereException();
            if (DropFiles.IsPicture(name) || name.StartsWith("cid:", StringComparison.Ordinal))
                continue;
            var text = request.TextId is { } also && id == request.Files[0] ? await DropFiles.Find(data, also, stop) : null;
            contents.Add(new(new(id, name, false), path, text?.Path, context));
        }

        return contents;
    }

    // Why it cannot be read is told in its place, so that the others can be added without it.
    private async Task<(IDropKind? Kind, List<IDropKind> Kinds, string? Problem)> KindOf(
        DropContent content,
        DropChoice choice,
        CancellationToken stop
    )
    {
        try
        {
            await content.Read(stop);
        }
        catch (InvalidInputException e)
        {
            return (null, [], e.Problems[0].Message);
        }

        var fitting = _kinds
            .Select(k => (Kind: k, Fit: k.Fits(content)))
            .Where(k => k.Fit is not null)
            .OrderByDescending(k => k.Fit)
            .ToList();
        var chosen = choice.Kind is { } id ? fitting.Find(k => k.Kind.Id == id).Kind : fitting.Find(k => k.Fit >= 0.5).Kind;
        return (chosen, [.. fitting.Select(k => k.Kind)], null);
    }

    private static async Task<DropShown> ShownOf(IDropKind? kind, DroppedThing thing, CancellationToken stop)
    {
        if (kind is null)
            return Nothing("What this is was not recognised. Choose it, or leave it out.");
        try
        {
            return await kind.Look(thing, stop);
        }
        catch (InvalidInputException e)
        {
            return Nothing(e.Problems[0].Message) with { Columns = kind is IHasColumns table ? table.ColumnsOf(thing) : null };
        }
    }

    private static DropShown Nothing(string problem) => new("", [], [], [], 0, [], problem);

    // Pictures that results show are stored before the write begins: decoding takes a while. What is not used is removed by itself.
    private async Task<Dictionary<string, string>> StorePictures(
        DropsRequest request,
        IReadOnlyList<DropContent> contents,
        CancellationToken stop
    )
    {
        var stored = new Dictionary<string, string>(StringComparer.OrdinalIgnoreCase);
        var wanted = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var content in contents.Where(c => !ChoiceOf(request, c.File.Id).IsOut))
        {
            // What cannot be read is told where it is added.
            var (_, _, problem) = await KindOf(content, ChoiceOf(request, content.File.Id), stop);
            if (problem is null && content.Page is { } page)
                wanted.UnionWith(
                    page.Results.Select(r => r.Image?.Address).OfType<string>().SelectMany(a => NamesOf(content.File.Name, a))
                );
        }

        foreach (var id in request.Files)
            if (await DropFiles.Find(data, id, stop) is var (path, name) && wanted.Contains(name) && IsPictureFile(path))
                try
                {
                    await using var file = File.OpenRead(path);
                    stored[name] = await pictures.Add(file, stop);
                }
                catch (InvalidInputException)
                {
                    // A picture that cannot be read is missing on the page, no more.
                }

        return stored;
    }

    private static bool IsPictureFile(string path)
    {
        Span<byte> first = stackalloc byte[16];
        using var file = File.OpenRead(path);
        return PictureFiles.TypeOf(first[..file.ReadAtLeast(first, first.Length, throwOnEndOfStream: false)]) is not null;
    }

    // What the file of a picture may be called: by its whole address, as in a web archive; or beside the page, as browsers save it.
    private static IEnumerable<string> NamesOf(string page, string address)
    {
        var plain = WebUtility.UrlDecode(address.Split('?', '#')[0]);
        plain = plain.StartsWith("./", StringComparison.Ordinal) ? plain[2..] : plain;
        var folder = page.LastIndexOf('/') is >= 0 and var at ? page[..(at + 1)] : "";
        return [address, folder + plain, plain];
    }

    private async Task<IReadOnlyList<MarketPlace>> Places(CancellationToken stop) => [.. market.PlacesWith(await db.Site(stop))];

    private static MarketPlace PlaceOf(IReadOnlyList<MarketPlace> places, string marketId) =>
        places.FirstOrDefault(p => p.Id == marketId)
        ?? throw new InvalidInputException([new("marketId", $"There is no market \"{marketId}\".")]);

    private static DropChoice ChoiceOf(DropsRequest request, string id) =>
        request.Choices?.FirstOrDefault(c => c.Id == id) ?? new DropChoice(id);

    private static InvalidInputException Wrong(DropContent content, string why) => new([new("files", $"{content.Source}: {why}")]);
}
