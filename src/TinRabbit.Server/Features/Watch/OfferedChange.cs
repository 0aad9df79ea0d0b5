namespace TinRabbit.Server.Features.Watch;

/// <summary>A change of the profile that is offered.</summary>
/// <param name="Says">The change as a sentence.</param>
/// <param name="Remaining">Disagreements that would remain.</param>
/// <param name="New">Terms that agree now and would not any more.</param>
/// <param name="Profile">The changed profile; saving it makes the change.</param>
/// <param name="Revision">Of the profile that it was made from.</param>
public sealed record OfferedChange(string Says, int Remaining, int New, JsonObject Profile, int Revision);
