namespace TinRabbit.Server.Undo;

/// <summary>The result of a change.</summary>
/// <param name="What">As a sentence without a full stop; null where nothing changed.</param>
/// <param name="Id">The change, by which it is undone; null where nothing changed.</param>
/// <param name="Revision">Of the product's name and facts, where they changed.</param>
public sealed record Changed(string? What, int? Id = null, int? Revision = null);
