namespace TinRabbit.Server.Journal;

/// <summary>A change note as it was before it was edited.</summary>
public sealed record NoteState(DateTime At, DateTime CountsFrom, List<NoteKind> Kinds, string Text)
{
    /// <summary>What a note is now.</summary>
    public static NoteState Of(NoteRow note) => new(note.At, note.CountsFrom, [.. note.Kinds], note.Text);

    /// <summary>Whether two say the same.</summary>
    public bool IsSame(NoteState other) => Kinds.SequenceEqual(other.Kinds) && this with { Kinds = other.Kinds } == other;

    /// <summary>Makes a note what it was.</summary>
    public void ApplyTo(NoteRow note) =>
        (note.At, note.CountsFrom, note.Kinds, note.Text, note.Revision) = (At, CountsFrom, Kinds, Text, note.Revision + 1);
}
