namespace TinRabbit.Server.Storage;

/// <summary>A change that can be undone.</summary>
public sealed class ChangeRow
{
    public int Id { get; set; }

    /// <summary>The product that it is about; null for the shop as a whole.</summary>
    public int? ProductId { get; set; }

    /// <summary>What was done, as a sentence without a full stop: Picked “bird house”.</summary>
    public required string What { get; set; }

    /// <summary>The picks it touched as they were, by key; null for one that was not there.</summary>
    public Dictionary<string, PickState?> Before { get; set; } = [];

    /// <summary>The product's facts as they were; null where the change was not to them.</summary>
    public Facts? FactsBefore { get; set; }

    /// <summary>What takes any other change back; null where it was to picks or facts.</summary>
    public Reversal? Reversal { get; set; }
    public DateTime At { get; set; }
}
