namespace TinRabbit.Server.Files.Documents;

/// <summary>Which columns of a marketplace's own export hold what of listings: guessed by their headings, and by what is in them.</summary>
public static class ListingColumns
{
    /// <summary>The product that a listing is of.</summary>
    public const string Product = "product";

    /// <summary>The marketplace's number for a listing.</summary>
    public const string Number = "number";

    /// <summary>The seller's own number.</summary>
    public const string Sku = "sku";

    /// <summary>The price.</summary>
    public const string Price = "price";

    /// <summary>How many are in stock.</summary>
    public const string Quantity = "quantity";

    /// <summary>Where a listing can be opened.</summary>
    public const string Address = "address";

    /// <summary>The address of a picture.</summary>
    public const string Picture = "picture";

    /// <summary>What the role of a field's column begins with.</summary>
    public const string Field = "field:";

    private const char Attribute = '/';

    private static readonly (string Role, string[] Words)[] Details =
    [
        (Sku, ["sku", "article number", "artikelnummer", "item code", "product code", "referencia", "référence"]),
        (Number, ["listing id", "listing number", "item id", "item number", "id", "number", "nummer"]),
        (Price, ["price", "preis", "precio", "prix", "prezzo"]),
        (Quantity, ["quantity", "qty", "stock", "menge", "bestand", "cantidad", "inventory"]),
        (Address, ["url", "link", "permalink", "address", "web address"]),
        (Picture, ["photo", "image", "picture", "img", "bild", "foto", "imagen"]),
        (Product, ["product", "product name"]),
    ];

    private static readonly (string Role, string[] Words)[] Fields =
    [
        ("title", ["title", "item name", "name", "titel", "título", "titre", "heading"]),
        ("tags", ["tag", "keyword", "schlagwort", "schlagwörter", "etiqueta", "mot clé"]),
        ("backend", ["backend", "search term", "hidden keyword", "generic keyword"]),
        ("bullets", ["bullet", "bullet point", "highlight", "key feature", "feature"]),
        ("body", ["description", "body", "beschreibung", "descripción", "text", "about"]),
        ("category", ["category", "kategorie", "categoría", "catégorie"]),
        ("materials", ["material"]),
        ("brand", ["brand", "marke", "marca"]),
        ("keywords", ["keyword"]),
        ("short", ["short description", "summary"]),
    ];

    /// <summary>The roles that columns can have on a platform, with their names.</summary>
    public static IReadOnlyList<(string Role, string Name)> RolesOf(Platform platform) =>
        [
            ("", "Not used"),
            (Product, "Product"),
            .. platform
                .Fields.Where(f => f.Role != "alt")
                .SelectMany(f =>
                    f.Shape == FieldShape.Choices
                        ? f.Attributes.Select(a => ($"{Field}{f.Key}{Attribute}{a.Name}", $"{f.Label}: {a.Name}"))
                        : [($"{Field}{f.Key}", f.Label)]
                ),
            (Number, "Listing number"),
            (Sku, "SKU"),
            (Price, "Price"),
            (Quantity, "Quantity"),
            (Address, "Address"),
            (Picture, "Picture"),
        ];

    /// <summary>The field and the attribute that a role names; the attribute is null where the field has none.</summary>
    public static (string Key, string? Attribute)? FieldOf(string role)
    {
        if (!role.StartsWith(Field, StringComparison.Ordinal))
            return null;
        var rest = role[Field.Length..];
        return rest.IndexOf(Attribute) is >= 0 and var at ? (rest[..at], rest[(at + 1)..]) : (rest, null);
    }

    /// <summary>The role of each column. Numbered columns (Bullet 1, Bullet 2) have one role together.</summary>
    public static string[] Guess(IReadOnlyList<string> heads, Func<int, IEnumerable<string>> cells, Platform platform)
    {
        var roles = new string[heads.Count];
        Array.Fill(roles, "");
        var keys = heads.Select(h => Tokens.Key(WithoutNumber(h.Replace('_', ' ')))).ToList();
        // Its own name first, then what is usual, the whole heading before a part of it.
        for (var i = 0; i < roles.Length; i++)
            if (Named(keys[i], heads[i], platform) is { } named && MayTake(named, i))
                roles[i] = named;
        foreach (var isWhole in (bool[])[true, false])
            for (var i = 0; i < roles.Length; i++)
                if (roles[i].Length == 0 && keys[i].Length > 0 && Usual(keys[i], isWhole, platform) is { } usual && MayTake(usual, i))
                    roles[i] = usual;
        for (var i = 0; i < roles.Length; i++)
            if (roles[i].Length == 0 && cells(i).ToList() is { Count: > 0 } texts)
                if (texts.TrueForAll(IsAddress) && !roles.Contains(Address))
                    roles[i] = Address;
        return roles;

        bool MayTake(string role, int column) =>
            !roles.Contains(role) || (IsList(role, platform) && keys[Array.IndexOf(roles, role)] == keys[column]);
    }

    /// <summary>Whether a text is a usual heading, whatever the platform.</summary>
    public static bool IsUsual(string head)
    {
        var key = Tokens.Key(head);
        return Details.Concat(Fields).Any(r => r.Words.Any(w => Is(key, w, isWhole: true)));
    }

    /// <summary>Whether several columns can hold values of one role.</summary>
    public static bool IsList(string role, Platform platform) =>
        role == Picture
        || (
            FieldOf(role) is var (key, attribute)
            && attribute is null
            && platform.Find(key) is { Shape: FieldShape.Phrases or FieldShape.Lines or FieldShape.Path or FieldShape.Words }
        );

    /// <summary>What is between the values of a column's cells: what splits most of them into several that fit; empty where they have one each.</summary>
    public static string SeparatorOf(IEnumerable<string> cells, Field field)
    {
        var texts = cells.Where(c => c.Length > 0).Take(200).ToList();
        foreach (var sign in (string[])["\n", "|", ";", ">", ","])
        {
            if (sign == ">" && field.Shape != FieldShape.Path)
                continue;
            if (sign == "," && field.Shape == FieldShape.Lines)
                continue;
            if (texts.Count(t => t.Contains(sign, StringComparison.Ordinal)) * 2 >= texts.Count && texts.Count > 0)
                return sign;
        }

        return "";
    }

    private static bool IsAddress(string text) =>
        text.StartsWith("http://", StringComparison.Ordinal) || text.StartsWith("https://", StringComparison.Ordinal);

    private static string WithoutNumber(string head) => head.TrimEnd('0', '1', '2', '3', '4', '5', '6', '7', '8', '9', ' ', '#', '-', '.');

    private static string? Named(string key, string head, Platform platform)
    {
        foreach (var field in platform.Fields.Where(f => f.Role != "alt"))
        {
            if (field.Shape == FieldShape.Choices)
            {
                if (field.Attributes.FirstOrDefault(a => Tokens.Key(a.Name) == key) is { } attribute)
                    return $"{Field}{field.Key}{Attribute}{attribute.Name}";
            }
            else if (
                Tokens.Key(field.Label) == key
                || Tokens.Key(field.Key) == key
                || string.Equals(field.Role, head, StringComparison.OrdinalIgnoreCase)
            )
                return $"{Field}{field.Key}";
        }

        return null;
    }

    private static string? Usual(string key, bool isWhole, Platform platform)
    {
        foreach (var (role, words) in Details)
            if (words.Any(w => Is(key, w, isWhole)))
                return role;
        foreach (var (role, words) in Fields)
            if (words.Any(w => Is(key, w, isWhole)) && platform.Role(role) is { } field && field.Shape != FieldShape.Choices)
                return $"{Field}{field.Key}";
        return null;
    }

    private static bool Is(string key, string word, bool isWhole) =>
        isWhole ? key == word || key == word + "s" : $" {key} ".Contains($" {word} ", StringComparison.Ordinal);
}
