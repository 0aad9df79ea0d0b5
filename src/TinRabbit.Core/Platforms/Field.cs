namespace TinRabbit.Core.Platforms;

/// <summary>One field of a listing.</summary>
/// <param name="Key">Name in copy and exports.</param>
/// <param name="Label">The name people read.</param>
/// <param name="Role">What the field is to the job: title, tags, bullets, backend, body; free otherwise.</param>
/// <param name="Shape">How it is written.</param>
/// <param name="Indexed">Whether the platform's search reads it.</param>
/// <param name="IndexedFirst">Only this many first characters are read; null for all.</param>
/// <param name="Weight">How much a match here counts, 0–1.</param>
/// <param name="Front">Whether a match further forward counts for more.</param>
/// <param name="Required">Whether a listing needs it.</param>
/// <param name="Limit">Room; null when there is no limit.</param>
/// <param name="Shows">Characters that other places show of it; null when all.</param>
/// <param name="Separator">What stands between its phrases or items when it is one text.</param>
public sealed record Field(
    string Key,
    string Label,
    string Role,
    FieldShape Shape,
    bool Indexed,
    int? IndexedFirst,
    double Weight,
    bool Front,
    bool Required,
    Limit? Limit,
    int? Shows,
    string Separator
)
{
    // A word with the space after it has six characters on average; a field without a limit has room for twenty.
    private const int CharactersPerToken = 6;
    private const int TokensWithoutLimit = 20;

    /// <summary>How many tokens the field has room for: its limit in words, or one for every six characters or bytes; 20 without a limit.</summary>
    public int RoomInTokens =>
        Limit is not { Max: { } max } ? TokensWithoutLimit
        : Limit.Unit == Unit.Words ? max
        : (max + CharactersPerToken - 1) / CharactersPerToken;

    /// <summary>Whether it says what the product is made of: only its materials are true there, whatever is searched for.</summary>
    public bool IsMaterials => Shape == FieldShape.Phrases && (Role == "materials" || Key == "materials");

    /// <summary>For a path: the categories that there are, from the top; empty where they are not known.</summary>
    public IReadOnlyList<Category> Tree { get; init; } = [];

    /// <summary>For choices: the attributes that there are; empty where they are not known.</summary>
    public IReadOnlyList<AttributeRule> Attributes { get; init; } = [];
}
