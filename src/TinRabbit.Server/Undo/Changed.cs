namespace TinRabbit.Server.Undo;

/// <summary>The result of a change.</summary>
/// <param name="What">As a sentence without a full stop; null where nothing changed.</param>
/// <param name="Id">The change, by which it is undone; null where nothing changed.</param>
/// <param name="Revision">Of the product's name and facts, where they changed.</param>
/// <param name="Asks">Nothing changed yet: this is a large change, and whether it is to be turned is asked first. <paramref name="Id"/> says which.</param>
public sealed record Changed(string? What, int? Id = null, int? Revision = null, string? Asks = null);
