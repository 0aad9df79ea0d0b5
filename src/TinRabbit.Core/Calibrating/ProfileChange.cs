using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Calibrating;

/// <summary>One change of a platform's profile that would explain what was observed.</summary>
/// <param name="Kind">What it is about.</param>
/// <param name="Name">The fold, or the field's key; empty where the kind says it all.</param>
/// <param name="On">Whether it is on after the change.</param>
/// <param name="Remaining">Disagreements that remain.</param>
/// <param name="New">Terms that agree before it and no longer after.</param>
/// <param name="Platform">The profile with the change.</param>
public sealed record ProfileChange(ProfileChangeKind Kind, string Name, bool On, int Remaining, int New, Platform Platform);
