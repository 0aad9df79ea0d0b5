namespace TinRabbit.Server.Undo;

/// <summary>A change that can be undone, and then made again.</summary>
public sealed class ChangeRow
{
    private const int MostSteps = 10;

    public int Id { get; set; }
    public Screen Screen { get; set; }

    /// <summary>The product that it is about; null for the shop as a whole.</summary>
    public int? ProductId { get; set; }

    /// <summary>The listing that it is about; null where it is not about one.</summary>
    public int? ListingId { get; set; }

    /// <summary>The page that it is about; null where it is not about one.</summary>
    public int? PageId { get; set; }

    /// <summary>What was done, as a sentence without a full stop: Picked “bird house”.</summary>
    public required string What { get; set; }

    /// <summary>What takes it back, in this order; once it is undone, what makes it again.</summary>
    public IReadOnlyList<IUndoStep> Steps { get; set; } = [];
    public DateTime At { get; set; }

    /// <summary>When it was undone; null while it is in force.</summary>
    public DateTime? UndoneAt { get; set; }

    /// <summary>Whether turning it changes so much that the seller is asked first: an import, a bulk edit.</summary>
    public bool IsLarge => Steps.Count > MostSteps || Steps.Any(s => s.WritesByItself);
}
