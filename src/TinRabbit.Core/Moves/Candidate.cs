using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Moves;

/// <summary>An edit that keeps every rule, before it is weighed; <see cref="Pick"/> is the number of the pick that it is for, −1 for none.</summary>
internal sealed record Candidate(MoveKind Kind, Field Field, int? Item, string Text, FieldValue Value, int Pick);
