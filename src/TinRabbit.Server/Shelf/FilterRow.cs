namespace TinRabbit.Server.Shelf;

/// <summary>A shelf's filters under a name.</summary>
public sealed class FilterRow : IRestored, IRenamed
{
    public DateTime? DeletedAt { get; set; }

    public int Id { get; set; }
    public required string Name { get; set; }

    /// <summary>The filters as the address bar has them.</summary>
    public required string Filters { get; set; }

    public void Rename(string name) => Name = name;

    public async Task<string?> WhyNot(TinContext db, CancellationToken stop) =>
        await db.Filters.AnyAsync(f => f.Name == Name && f.Id != Id, stop)
            ? $"There is a new filter named “{Name}”. Rename it first, then undo."
            : null;
}
