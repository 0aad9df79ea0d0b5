namespace TinRabbit.Server.Storage;

/// <summary>A pick with its numbers in one market.</summary>
public sealed record MeasuredPick(PickRow Pick, Measured Numbers);
