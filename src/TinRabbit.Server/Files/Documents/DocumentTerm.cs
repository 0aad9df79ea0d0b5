namespace TinRabbit.Server.Files.Documents;

/// <summary>A term of a shelf with all that was read of it.</summary>
/// <param name="Readings">The oldest first.</param>
/// <param name="InForce">The place, from 0, of the reading that counts; null where none does.</param>
public sealed record DocumentTerm(
    [MaxLength(Bounds.NameLength)] string Market,
    [Term] string Text,
    [MaxLength(Bounds.List)] IReadOnlyList<DocumentReading>? Readings = null,
    int? InForce = null
);
