using TinRabbit.Core.Words;

namespace TinRabbit.Core.Platforms;

/// <summary>A set of rules as data: a place to sell, its fields and limits, and what its search treats as the same word.</summary>
/// <param name="Id">Short name used in addresses: lower case, digits and hyphens.</param>
/// <param name="Name">The name people read.</param>
/// <param name="About">One or two sentences on what is different here.</param>
/// <param name="Language">Language of its listings, as a BCP 47 tag.</param>
/// <param name="Spelling">Regional spelling of its listings, as a BCP 47 tag; null when it has none of its own.</param>
/// <param name="Search">How its search compares words.</param>
/// <param name="Fields">The fields of a listing, in the order of its form.</param>
/// <param name="Banned">Phrases that the platform refuses.</param>
/// <param name="Checks">Thresholds of the findings, by name.</param>
public sealed record Platform(
    string Id,
    string Name,
    string About,
    string Language,
    string? Spelling,
    SearchRules Search,
    IReadOnlyList<Field> Fields,
    IReadOnlyList<string> Banned,
    IReadOnlyDictionary<string, double> Checks)
{
    /// <summary>The fields that its search reads, in order.</summary>
    public IReadOnlyList<Field> IndexedFields => [.. Fields.Where(f => f.Indexed)];

    /// <summary>The field with this key, or null.</summary>
    public Field? Find(string key) => Fields.FirstOrDefault(f => f.Key == key);
}

/// <summary>How a platform's search compares words.</summary>
/// <param name="Folds">The ways in which two different words are the same.</param>
/// <param name="IgnoredWords">Words dropped from a query.</param>
/// <param name="WordsCombine">Whether a query's words may stand in different fields.</param>
/// <param name="IndexDelayHours">Hours until its index notices a change.</param>
public sealed record SearchRules(Folds Folds, IReadOnlyList<string> IgnoredWords, bool WordsCombine, double IndexDelayHours);

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
    string Separator)
{
    /// <summary>For a path: the categories that there are, from the top; empty where they are not known.</summary>
    public IReadOnlyList<Category> Tree { get; init; } = [];

    /// <summary>For choices: the attributes that there are; empty where they are not known.</summary>
    public IReadOnlyList<AttributeRule> Attributes { get; init; } = [];
}

/// <summary>A category, with those under it.</summary>
public sealed record Category(string Name, IReadOnlyList<Category> Under)
{
    /// <summary>The category that a path of names leads to from these, or null.</summary>
    public static Category? At(IReadOnlyList<Category> tree, IReadOnlyList<string> path)
    {
        Category? at = null;
        foreach (var name in path)
        {
            at = (at?.Under ?? tree).FirstOrDefault(c => string.Equals(c.Name, name.Trim(), StringComparison.OrdinalIgnoreCase));
            if (at is null)
                return null;
        }

        return at;
    }
}

/// <summary>An attribute of a listing.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Options">The values to choose from; empty where any may be written.</param>
/// <param name="Category">The category that opens it, for itself and all under it; null where every listing has it.</param>
public sealed record AttributeRule(string Name, IReadOnlyList<string> Options, string? Category)
{
    /// <summary>Whether a listing in a category has it.</summary>
    public bool OpenIn(IReadOnlyList<string> path) => Category is null || path.Any(p => string.Equals(p.Trim(), Category, StringComparison.OrdinalIgnoreCase));
}

/// <summary>How a field is written.</summary>
public enum FieldShape
{
    /// <summary>One line of text.</summary>
    Line,

    /// <summary>Text of many lines.</summary>
    Text,

    /// <summary>A list of lines: bullet points.</summary>
    Lines,

    /// <summary>A list of phrases: tags.</summary>
    Phrases,

    /// <summary>A bag of words: backend keywords.</summary>
    Words,

    /// <summary>HTML.</summary>
    Rich,

    /// <summary>A path in the category tree.</summary>
    Path,

    /// <summary>Named values: attributes.</summary>
    Choices,
}

/// <summary>The unit of a limit.</summary>
public enum Unit
{
    /// <summary>Unicode scalar values.</summary>
    Characters,

    /// <summary>Bytes of UTF-8.</summary>
    Bytes,

    /// <summary>Words as <see cref="Tokens"/> cuts them.</summary>
    Words,
}

/// <summary>The room of a field, or of each item of a list field.</summary>
/// <param name="Max">Most that a text, or each item, may hold; null when only the items are counted.</param>
/// <param name="Unit">What <paramref name="Max"/> counts.</param>
/// <param name="MaxItems">Most items of a list; null when not limited.</param>
public sealed record Limit(int? Max, Unit Unit, int? MaxItems);
