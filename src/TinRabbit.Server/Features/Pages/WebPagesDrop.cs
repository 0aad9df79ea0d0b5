using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Documents;
using TinRabbit.Server.Files.Html.Reading;
using TinRabbit.Server.Files.Tables;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Features.Pages;

/// <summary>A saved page of the seller's own web shop.</summary>
internal sealed class WebPagesDrop(TinContext db, ListingEditor editor) : IDropKind
{
    public string Id => "page";

    public string Name => "Page of my web shop";

    public double? Fits(DropContent content) =>
        !content.IsHtml ? null
        : content.Page is { Kind: ReadKind.Other } ? 0.6
        : content.Context.Market.PlatformId == Sites.PlatformId ? 0.7
        : 0.15;

    public async Task<DropShown> Look(DroppedThing thing, CancellationToken stop)
    {
        var document = await DocumentOf(thing, stop);
        var items = await new ShopImport(db, editor, document).Plan(stop);
        var changes = items.SelectMany(i => i.Changes).ToList();
        return new(
            $"The page “{document.Products![0].Name}”",
            [
                new(
                    "In the web shop",
                    items.Any(i => i.State == ImportState.New) ? "new"
                        : changes.Count > 0 ? "different"
                        : "unchanged"
                ),
            ],
            ["Field", "Here", "In the file"],
            [
                .. changes
                    .Where(c => c.After.Length > 0)
                    .Take(DropShown.MostRows)
                    .Select(c => new DropRow([c.Label, Short(c.Before), Short(c.After)])),
            ],
            changes.Count,
            []
        );
    }

    public async Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop)
    {
        var steps = new List<IUndoStep>();
        foreach (var thing in things)
            steps.AddRange((await new ShopImport(db, editor, await DocumentOf(thing, stop)).Apply(null, null, stop)).Steps);

        return steps;
    }

    private async Task<ShopDocument> DocumentOf(DroppedThing thing, CancellationToken stop)
    {
        var (rules, site) = (await db.PageRules(stop), await db.Site(stop));
        var html = FileText.Decode(await File.ReadAllBytesAsync(thing.Content.Path, stop));
        return ShopDocument.Of([HtmlPages.Read(html, thing.Content.Source, rules, site.TitleSuffix, _ => null)]);
    }

    private static string Short(string text) => text.Length <= 80 ? text : text[..79] + "…";
}
