namespace TinRabbit.Server.Listings;

/// <summary>Whether a product was only an idea before a change, and what it was called.</summary>
public sealed record IdeaState(int ProductId, bool IsIdea, string Name) : IUndoStep
{
    public async Task<IReadOnlyList<IUndoStep>> Undo(UndoContext undo, CancellationToken stop)
    {
        if (await undo.Db.Products.FirstOrDefaultAsync(p => p.Id == ProductId, stop) is not { } product)
            return [];
        var now = new IdeaState(ProductId, product.IsIdea, product.Name);
        product.IsIdea = IsIdea;
        if (product.Name != Name)
            product.Rename(Name);
        return [now];
    }
}
