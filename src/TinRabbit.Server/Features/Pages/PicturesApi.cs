using TinRabbit.Core.Findings;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Picks;
using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Features.Pages;

/// <summary>A picture of the shop in the sheet of alt texts.</summary>
/// <param name="Number">Its place among the pictures of its product, from 0; in a page's text, counted down from −1.</param>
/// <param name="IsInText">Whether it stands in a page's text, where it is changed.</param>
/// <param name="File">Its file; null where there is none.</param>
/// <param name="Shows">What it shows, in the seller's words.</param>
/// <param name="IsLocked">Whether its alt text is locked, because something else depends on it.</param>
/// <param name="Side">The longer side of its file in pixels; null where it has none.</param>
/// <param name="Terms">The picks that the text contains.</param>
/// <param name="Offer">What it shows, with the lead near the front; null where there is nothing better to say.</param>
public sealed record PictureView(
    int ProductId,
    string Product,
    bool IsPage,
    int Number,
    bool IsInText,
    string? File,
    string Shows,
    string Alt,
    bool IsLocked,
    int? Side,
    int Length,
    IReadOnlyList<ContainedTerm> Terms,
    string? Offer,
    IReadOnlyList<AltProblem> Problems
);

/// <summary>The sheet of alt texts.</summary>
/// <param name="Most">The most characters that an alt text should have.</param>
/// <param name="Names">The names that a pattern can have in braces.</param>
public sealed record PicturesView(double Most, IReadOnlyList<string> Names, IReadOnlyList<PictureView> Pictures);

/// <summary>A pattern to fill alt texts with.</summary>
/// <param name="Selected">The pictures, where the scope is <see cref="FillScope.Selected"/>.</param>
public sealed record PatternRequest([MaxLength(Bounds.NoteLength)] string Pattern, FillScope Scope, IReadOnlyList<PictureRef>? Selected);

/// <summary>An alt text that a pattern would change.</summary>
public sealed record AltChange(int ProductId, int Number, string Product, string Before, string After);

/// <summary>What a picture shows.</summary>
public sealed record ShowsRequest([MaxLength(Bounds.NoteLength)] string Shows);

/// <summary>Whether an alt text is locked.</summary>
public sealed record LockRequest(bool IsLocked);

internal static class PicturesApi
{
    public static void MapPictures(this IEndpointRouteBuilder app)
    {
        var api = app.MapGroup("/api/pictures");
        api.MapGet("/", GetPictures);
        api.MapPost("/fill/preview", PreviewAltFill);
        api.MapPost("/fill", FillAltTexts).RetriesRaces();
        api.MapGet("/files/{name}", GetPictureFile).Produces(200).ExcludeFromDescription();
        api.MapPut("/{productId:int}/{number:int}/shows", SetPictureShows).RetriesRaces();
        api.MapPut("/{productId:int}/{number:int}/locked", LockAltText).RetriesRaces();
        api.MapPost("/{productId:int}", AddPictureFile).TakesFile().DisableRequestTimeout();
    }

    private static async Task<PicturesView> GetPictures(TinContext db, IMarket market, PictureFiles files, CancellationToken stop)
    {
        var rules = await db.PageRules(stop);
        var products = await Products(db, stop);
        var inText = products.ToDictionary(p => p.Id, p => InText(p, rules));
        var same = UsedTwice(products.SelectMany(p => p.Pictures.Select(x => x.Description).Concat(inText[p.Id].Select(x => x.Alt))));
        var picks = await db.WantedByProduct(market.MarketOf(await db.Site(stop))?.Id, stop);
        var own = OwnWord.ByKey(await db.OwnWords(stop));
        var checks = new PageToCheck(PageKind.Product);
        var (most, least) = (checks.Threshold(rules, "altMax"), checks.Threshold(rules, "pictureMin"));
        var sheet = new Sheet(rules, most, least, same, files);
        return new PicturesView(
            most,
            AltPattern.Names,
            [.. products.SelectMany(p => Views(p, inText[p.Id], [.. picks[p.Id]], p.Facts.Words with { Own = own }, sheet, stop))]
        );
    }

    private static HashSet<string> UsedTwice(IEnumerable<string> texts) =>
        texts
            .Select(Tokens.Key)
            .Where(k => k.Length > 0)
            .GroupBy(k => k, StringComparer.Ordinal)
            .Where(g => g.Count() > 1)
            .Select(g => g.Key)
            .ToHashSet(StringComparer.Ordinal);

    private static async Task<List<AltChange>> PreviewAltFill(PatternRequest request, TinContext db, CancellationToken stop) =>
        await Planned(request, await Products(db, stop), db, stop);

    private static async Task<Changed> FillAltTexts(PatternRequest request, TinContext db, ChangeLog changes, CancellationToken stop)
    {
        var products = await Products(db, stop);
        var planned = await Planned(request, products, db, stop);
        if (planned.Count == 0)
            return new(null);
        var states = new List<PictureState>();
        foreach (var some in planned.GroupBy(p => p.ProductId))
        {
            var product = products.First(p => p.Id == some.Key);
            var before = product.PictureStates();
            product.SetPictures([
                .. before.Select((p, i) => some.FirstOrDefault(c => c.Number == i) is { } change ? p with { Alt = change.After } : p),
            ]);
            states.Add(new(product.Id, before, product.PictureStates()));
        }

        return await changes.Save(PageMessages.FilledAltTexts(planned.Count), new(Screen.Pages), [.. states], stop);
    }

    // The revision is that of the alt texts, which stay as they are.
    private static Task<Changed> SetPictureShows(
        int productId,
        int number,
        ShowsRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    ) =>
        ChangePicture(
            productId,
            number,
            p => p with { Shows = request.Shows.Trim() },
            _ => PageMessages.ChangedPictures(1),
            db,
            changes,
            stop
        );

    private static Task<Changed> LockAltText(
        int productId,
        int number,
        LockRequest request,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    ) =>
        ChangePicture(
            productId,
            number,
            p => p with { IsLocked = request.IsLocked },
            product => PageMessages.LockedAltText(number + 1, product, request.IsLocked),
            db,
            changes,
            stop
        );

    private static async Task<Changed> ChangePicture(
        int productId,
        int number,
        Func<OnePicture, OnePicture> change,
        Func<string, string> what,
        TinContext db,
        ChangeLog changes,
        CancellationToken stop
    )
    {
        var product = await db.Products.Include(p => p.Pictures).FirstOrDefaultAsync(p => p.Id == productId, stop).OrNotThere();
        if (product.Pictures.OrderBy(p => p.Order).ElementAtOrDefault(number) is not { } picture)
            throw new NotThereException();
        var (before, after) = (product.PictureStates(), change(OnePicture.Of(picture)));
        if (after == before[number])
            return new(null);
        (picture.Shows, picture.IsLocked) = (after.Shows, after.IsLocked);
        return await Save(product, before, what(product.Name), changes, stop);
    }

    // Without a number the file becomes a picture of its own, after the others.
    private static async Task<Changed> AddPictureFile(
        int productId,
        int? number,
        TinContext db,
        PictureFiles files,
        ChangeLog changes,
        HttpRequest request,
        CancellationToken stop
    )
    {
        var product = await db.Products.Include(p => p.Pictures).FirstOrDefaultAsync(p => p.Id == productId, stop).OrNotThere();
        var before = product.PictureStates();
        if (number is null && before.Count >= Bounds.Pictures)
            throw new InvalidInputException([new("file", $"A product has at most {Bounds.Pictures} pictures.")]);
        var file = await files.Add(request.Body, stop);
        product.SetPictures(
            number is { } at && at >= 0 && at < before.Count
                ? [.. before.Select((p, i) => i == at ? p with { File = file } : p)]
                : [.. before, new("", "", file)]
        );
        return await Save(product, before, PageMessages.ChangedPictures(1), changes, stop);
    }

    private static Task<Changed> Save(
        ProductRow product,
        IReadOnlyList<OnePicture> before,
        string what,
        ChangeLog changes,
        CancellationToken stop
    ) => changes.Save(what, new(Screen.Pages), [new PictureState(product.Id, before, product.PictureStates())], stop);

    private static PhysicalFileHttpResult GetPictureFile(string name, bool? small, PictureFiles files) =>
        files.PathOf(name, small == true) is { } path && File.Exists(path)
            ? TypedResults.PhysicalFile(path, "image/webp")
            : throw new NotThereException();

    private static Task<List<ProductRow>> Products(TinContext db, CancellationToken stop) =>
        db
            .Products.Include(p => p.Pictures)
            .Include(p => p.Listings)
            .Where(p =>
                p.Pictures.Count > 0 || p.Listings.Any(l => l.PlatformId == Sites.PlatformId && ((string)(object)l.Copy).Contains("img "))
            )
            .OrderBy(p => p.Id)
            .ToListAsync(stop);

    private static IReadOnlyList<RichPicture> InText(ProductRow product, Platform rules) =>
        product.Listings.FirstOrDefault(l => l.PlatformId == rules.Id) is { } listing
            ? RichBody.Read(listing.Copy.TextOf(rules, "body")).Pictures
            : [];

    /// <summary>What all pictures of the sheet are compared with.</summary>
    /// <param name="Same">The keys of texts that several pictures have.</param>
    private sealed record Sheet(Platform Rules, double Most, double Least, HashSet<string> Same, PictureFiles Files);

    private static IEnumerable<PictureView> Views(
        ProductRow product,
        IReadOnlyList<RichPicture> inText,
        List<(string Key, Home Home, WantedTerm Term)> picks,
        FactWords facts,
        Sheet sheet,
        CancellationToken stop
    )
    {
        stop.ThrowIfCancellationRequested();
        var (rules, most, least, same, files) = sheet;
        var keys = picks.Select(p => p.Key).ToHashSet(StringComparer.Ordinal);
        var leadKey = product.Listings.FirstOrDefault(l => l.PlatformId == rules.Id)?.LeadKey ?? product.Listings.FirstOrDefault()?.LeadKey;
        var lead = picks.FirstOrDefault(p => p.Key == leadKey).Term;
        var wanted = picks.Select(p => p.Term).ToList();
        // The lead, or where it isn't true of the product, the best pick that is.
        var said = picks
            .Select(p => p.Term)
            .Where(IsTrue)
            .OrderByDescending(t => t == lead)
            .ThenByDescending(t => t.Worth())
            .FirstOrDefault();
        var pictures = product.PictureStates();
        var hasLead = lead is null || pictures.Select(p => p.Alt).Concat(inText.Select(p => p.Alt)).Any(alt => Held(alt, [lead]).Count > 0);
        for (var i = 0; i < pictures.Count; i++)
            yield return View(i, pictures[i], isInText: false);
        for (var i = 0; i < inText.Count; i++)
            yield return View(-1 - i, new(inText[i].Alt, "", null), isInText: true);

        PictureView View(int number, OnePicture picture, bool isInText)
        {
            // A locked text is there for something else than to be read.
            var problems = picture.IsLocked ? [] : new List<AltProblem>(AltTexts.ProblemsOf(picture.Alt, most, keys, facts));
            var side = picture.File is { } file ? files.SideOf(file) : null;
            if (side < least)
                problems.Add(AltProblem.Small);
            if (!picture.IsLocked && same.Contains(Tokens.Key(picture.Alt)))
                problems.Add(AltProblem.Same);
            if (!hasLead && number == 0)
                problems.Add(AltProblem.NoLead);
            return new(
                product.Id,
                product.Name,
                product.IsPage,
                number,
                isInText,
                picture.File,
                picture.Shows,
                picture.Alt,
                picture.IsLocked,
                side,
                TextLength.Of(picture.Alt, Unit.Characters),
                Held(picture.Alt, wanted),
                isInText || picture.IsLocked ? null : Offer(picture, isFirst: number == 0),
                problems
            );
        }

        bool IsTrue(WantedTerm term) => term.Fit != Fit.Stretch && Facets.Unbacked(term.Text, facts).Count == 0;

        // Without a word about what they show, pictures would all be offered the same text.
        string? Offer(OnePicture picture, bool isFirst)
        {
            var shown = (picture.Shows.Length > 0 ? picture.Shows : picture.Alt).Trim();
            if (said is null || (shown.Length == 0 && !isFirst))
                return null;
            var holds = shown.Length > 0 && Held(shown, [said]).Count > 0;
            var offer = holds ? Capitals.First(shown) : AltTexts.WithLead(Capitals.First(shown), said.Text);
            return TextLength.Of(offer, Unit.Characters) <= most && Tokens.Key(offer) != Tokens.Key(picture.Alt) ? offer : null;
        }

        List<ContainedTerm> Held(string text, IReadOnlyList<WantedTerm> terms) =>
            text.Length == 0 || terms.Count == 0
                ? []
                :
                [
                    .. Weigher
                        .Weigh(rules.OfOneText(), Platform.CopyOf(text), terms, stop)
                        .Terms.Where(t => t.Grade != Grade.Missing)
                        .OrderByDescending(t => t.Term.Demand())
                        .Select(t => new ContainedTerm(t.Term.Text, t.Term.Volume)),
                ];
    }

    private static async Task<List<AltChange>> Planned(
        PatternRequest request,
        List<ProductRow> products,
        TinContext db,
        CancellationToken stop
    )
    {
        if (request.Pattern.Trim().Length == 0)
            throw new InvalidInputException([new("pattern", "Enter a pattern, such as {what it shows}, {lead}.")]);
        var site = await db.Site(stop);
        var selected = (request.Selected ?? []).ToHashSet();
        var ids = products.Select(p => p.Id).ToList();
        var picks = (await db.Picks.AsNoTracking().Where(p => ids.Contains(p.ProductId)).ToListAsync(stop)).ToLookup(p =>
            (p.ProductId, p.Key)
        );
        var planned = new List<AltChange>();
        foreach (var product in products)
        {
            var leadKey =
                product.Listings.FirstOrDefault(l => l.PlatformId == site.PlatformId)?.LeadKey
                ?? product.Listings.FirstOrDefault()?.LeadKey;
            var lead = leadKey is null ? "" : picks[(product.Id, leadKey)].FirstOrDefault()?.Text ?? "";
            var pictures = product.PictureStates();
            for (var i = 0; i < pictures.Count; i++)
            {
                var isWanted = request.Scope switch
                {
                    FillScope.Empty => pictures[i].Alt.Trim().Length == 0,
                    FillScope.Selected => selected.Contains(new(product.Id, i)),
                    _ => true,
                };
                if (
                    isWanted
                    && !pictures[i].IsLocked
                    && AltPattern.Fill(request.Pattern, Values(product, pictures[i], lead, site)) is { Length: > 0 } text
                    && text != pictures[i].Alt
                )
                    planned.Add(new(product.Id, i, product.Name, pictures[i].Alt, text));
            }
        }

        return planned;
    }

    private static Dictionary<string, string> Values(ProductRow product, OnePicture picture, string lead, SiteRow site) =>
        new(StringComparer.Ordinal)
        {
            ["what it shows"] = picture.Shows,
            ["lead"] = lead,
            ["name"] = product.Name,
            ["what"] = product.Facts.What,
            ["material"] = First(product.Facts.Materials),
            ["colour"] = First(product.Facts.Colours),
            ["size"] = First(product.Facts.Sizes),
            ["audience"] = First(product.Facts.Audiences),
            ["occasion"] = First(product.Facts.Occasions),
            ["brand"] = product.Facts.Brand.Length > 0 ? product.Facts.Brand : site.Brand,
        };

    private static string First(IReadOnlyList<string> values) => values.Count > 0 ? values[0] : "";
}
