using TinRabbit.Core.Platforms;
using TinRabbit.Core.Words;

namespace TinRabbit.Core.Findings;

/// <summary>A listing to check, and what is known beside it.</summary>
/// <param name="Platform">The platform's rules.</param>
/// <param name="Copy">The listing's fields.</param>
/// <param name="Terms">The picks.</param>
/// <param name="Lead">The pick that it is built around; null where none is chosen.</param>
/// <param name="Facts">What is true of the product; null where nothing is known.</param>
/// <param name="Avoid">What must not be said.</param>
/// <param name="ShopName">The shop's name; null where it does not matter.</param>
/// <param name="Rivals">How many rivals fill each attribute; empty where that is not known.</param>
public sealed record ListingToCheck(
    Platform Platform,
    IReadOnlyDictionary<string, FieldValue> Copy,
    IReadOnlyList<Measures.WantedTerm> Terms,
    string? Lead,
    Words.FactWords? Facts,
    IReadOnlyList<AvoidedTerm> Avoid,
    string? ShopName,
    IReadOnlyList<AttributeShare> Rivals
)
{
    /// <summary>The field under which findings about alt texts are told.</summary>
    public const string PicturesKey = "$pictures";

    /// <summary>The alt text of each of the product's pictures: no field of the platform, but read by shoppers as the copy is.</summary>
    public IReadOnlyList<string> Pictures { get; init; } = [];

    /// <summary>The places of the pictures whose alt texts are locked.</summary>
    public IReadOnlySet<int> LockedPictures { get; init; } = new HashSet<int>();

    /// <summary>What is known of it as a page of the web shop; null for a marketplace listing.</summary>
    public PageToCheck? Page { get; init; }

    /// <summary>The facts that its text is held to; null where none are given, and for a page about many products.</summary>
    internal FactWords? HeldFacts => Facts is { AreGiven: true } && Page is not { Kind: Pages.PageKind.Category } ? Facts : null;

    /// <summary>The draft with the alt texts as one more field, which no search reads; unless the platform has a field for them.</summary>
    internal ListingToCheck WithPictures() =>
        Pictures.Count == 0 || Role("alt") is not null
            ? this
            : this with
            {
                Platform = Platform with
                {
                    Fields =
                    [
                        .. Platform.Fields,
                        new(PicturesKey, "Pictures", "alt", FieldShape.Lines, false, null, 0, false, false, null, null, "\n"),
                    ],
                },
                Copy = new Dictionary<string, FieldValue>(Copy) { [PicturesKey] = new FieldValue.Items(Pictures) },
            };

    /// <summary>The threshold in a profile for how often one word may come in the title.</summary>
    public const string TitleWordUses = "titleWordUses";

    private static readonly Dictionary<string, double> Shipped = Words
        .WordData.Lines("checks.txt", "Findings")
        .Select(l => l.Split(' '))
        .ToDictionary(l => l[0], l => double.Parse(l[1], System.Globalization.CultureInfo.InvariantCulture));

    /// <summary>Every threshold there is, with what counts where a profile does not say.</summary>
    public static IReadOnlyDictionary<string, double> Thresholds => Shipped;

    /// <summary>A threshold: the platform's own, or the one that ships.</summary>
    public double Threshold(string name) => ThresholdOf(Platform, name);

    /// <summary>A platform's threshold: its own, or the one that ships.</summary>
    public static double ThresholdOf(Platform platform, string name) =>
        platform.Checks.TryGetValue(name, out var own) ? own : Shipped[name];

    /// <summary>The first field of a role, or null.</summary>
    public Field? Role(string role) => Platform.Role(role);

    /// <summary>A field's texts as they stand, markup blanked.</summary>
    public IReadOnlyList<string> Texts(Field field) => Copy.TryGetValue(field.Key, out var value) ? value.Units(field.Shape) : [];

    /// <summary>The text of a field of one text; empty where nothing stands there.</summary>
    public string TextOf(Field field) => string.Join(' ', Texts(field));

    /// <summary>The field's value with one of its texts changed.</summary>
    internal FieldValue With(Field field, int item, string text)
    {
        if (!Copy.TryGetValue(field.Key, out var value) || value is FieldValue.Text)
            return new FieldValue.Text(text);
        if (value is FieldValue.Items items && field.Shape != FieldShape.Words)
            return new FieldValue.Items([.. items.Values.Select((v, i) => i == item ? text : v)]);
        return new FieldValue.Text(text);
    }

    /// <summary>A list field's value without one of its items.</summary>
    internal FieldValue Without(Field field, int item) => new FieldValue.Items([.. Texts(field).Where((_, i) => i != item)]);
}
