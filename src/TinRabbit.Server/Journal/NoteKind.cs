namespace TinRabbit.Server.Journal;

/// <summary>What a change note says was changed.</summary>
public enum NoteKind
{
    Title,
    Tags,
    Bullets,
    Backend,
    Description,
    Attributes,
    Price,
    Photos,
    Promotion,
    Other,
}
