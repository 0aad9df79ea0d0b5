namespace TinRabbit.Server.Rivals;

/// <summary>A difference between two states of a rival's listing.</summary>
/// <param name="What">The field or the figure.</param>
public sealed record RivalChange(string What, string Before, string After);
