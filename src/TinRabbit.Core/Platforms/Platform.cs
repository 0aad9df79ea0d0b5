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
    IReadOnlyDictionary<string, double> Checks
)
{
    /// <summary>Where a suggested title has capital letters.</summary>
    public CapitalStyle Capitals { get; init; }

    /// <summary>The address of its search, with <c>{term}</c> where the search goes; null where it is not known.</summary>
    public string? SearchAddress { get; init; }

    /// <summary>The address of a listing, with <c>{id}</c> where its number goes; null where it is not known.</summary>
    public string? ListingAddress { get; init; }

    /// <summary>The fields that its search reads, in order.</summary>
    public IReadOnlyList<Field> IndexedFields => [.. Fields.Where(f => f.Indexed)];

    /// <summary>The field with this key, or null.</summary>
    public Field? Find(string key) => Fields.FirstOrDefault(f => f.Key == key);

    /// <summary>The first field of a role; null where there is none.</summary>
    public Field? Role(string role) => Fields.FirstOrDefault(f => f.Role == role);

    /// <summary>The same rules for a listing of one text, indexed with weight 1: to look for terms in any text.</summary>
    public Platform OfOneText() =>
        this with
        {
            Fields = [new(OneText, "", "", FieldShape.Line, true, null, 1, false, false, null, null, " ")],
        };

    /// <summary>The copy of a listing of one text, or of several texts that are read one by one.</summary>
    public static IReadOnlyDictionary<string, FieldValue> CopyOf(params IReadOnlyList<string> texts) =>
        new Dictionary<string, FieldValue> { [OneText] = new FieldValue.Items(texts) };

    private const string OneText = "text";
}
