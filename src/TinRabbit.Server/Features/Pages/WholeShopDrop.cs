using TinRabbit.Server.Drops;
using TinRabbit.Server.Files.Documents;

namespace TinRabbit.Server.Features.Pages;

/// <summary>A whole shop that was exported: its own import shows what would change, thing by thing.</summary>
internal sealed class WholeShopDrop : IDropKind
{
    public string Id => "shop";

    public string Name => "A whole shop";

    public double? Fits(DropContent content) =>
        content.IsZip && content.Table is null ? 0.99
        : content.IsJson && content.Start.Contains(ShopDocument.Name, StringComparison.Ordinal) ? 0.99
        : null;

    public Task<DropShown> Look(DroppedThing thing, CancellationToken stop) =>
        Task.FromResult(
            new DropShown(
                "A whole shop",
                [],
                [],
                [],
                0,
                [],
                "A whole shop is imported in its own view, where you choose what of it.",
                Dialog: "shop"
            )
        );

    public Task<IReadOnlyList<IUndoStep>> Add(IReadOnlyList<DroppedThing> things, CancellationToken stop) =>
        throw new InvalidOperationException("A whole shop has a view of its own.");
}
