using Microsoft.EntityFrameworkCore;
using TinRabbit.Server.Undo;

namespace TinRabbit.Server.Listings;

/// <summary>A product's name before a change.</summary>
public sealed record ProductName(int ProductId, string Name) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Products.FirstOrDefaultAsync(p => p.Id == ProductId, stop) is not { } product)
            return [];
        var now = new ProductName(ProductId, product.Name);
        (product.Name, product.Revision) = (Name, product.Revision + 1);
        return [now];
    }
}
