using TinRabbit.Server.Pictures;

namespace TinRabbit.Server.Listings;

/// <summary>A product's pictures as they were before a change and after it: undone only while they are still as the change made them.</summary>
public sealed record PictureState(int ProductId, IReadOnlyList<OnePicture> Before, IReadOnlyList<OnePicture> After) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (
            await undo.Db.Products.Include(p => p.Pictures).FirstOrDefaultAsync(p => p.Id == ProductId, stop) is not { } product
            || !product.PictureStates().SequenceEqual(After)
        )
            return [];
        product.SetPictures(Before);
        return [new PictureState(ProductId, After, Before)];
    }
}
