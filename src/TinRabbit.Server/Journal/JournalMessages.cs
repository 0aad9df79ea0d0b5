namespace TinRabbit.Server.Journal;

/// <summary>What the journal says of a listing that was sent.</summary>
internal static class JournalMessages
{
    public static string SentChange(bool isFirst, bool byHand, IReadOnlyList<string> fields) =>
        isFirst
            ? byHand
                ? "First published"
                : "First sent"
            : fields.Count > 3
                ? $"Changed {fields.Count} fields"
                : $"Changed {string.Join(", ", fields.Select(f => f.ToLowerInvariant()))}";
}
