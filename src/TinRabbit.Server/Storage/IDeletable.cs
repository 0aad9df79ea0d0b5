namespace TinRabbit.Server.Storage;

/// <summary>Something that can be deleted and restored: deleting only sets the time, which every query leaves out.</summary>
public interface IDeletable
{
    /// <summary>When it was deleted, with whatever was deleted in the same moment; null while it is there.</summary>
    DateTime? DeletedAt { get; set; }
}
