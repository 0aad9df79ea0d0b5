namespace TinRabbit.Server.Features.Watch;

/// <summary>The weight of a field, as it is and as it is offered.</summary>
public sealed record OfferedWeight(string Field, string Label, double Now, double Offered);
