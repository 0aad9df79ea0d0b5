namespace TinRabbit.Server.Features.Shop;

/// <summary>Changes to the shop and its listings, as the toast and History name them.</summary>
internal static class ShopMessages
{
    public static string AddedProduct(string product) => $"Added the product “{product}”";

    /// <summary>Says which product a list of picks became.</summary>
    public static string MadeProduct(string name) => $"Made “{name}” a product";

    public static string ChangedAltTexts(string product) => $"Changed the alt texts of “{product}”";

    public static string AddedListing(string product, string platform) => $"Added “{product}” to {platform}";

    public static string DeletedListing(string product, string platform) => $"Deleted the listing of “{product}” on {platform}";

    public static string SetOwnWord(string word, Facet? facet) =>
        facet is null
            ? $"“{word}” is no claim in this shop"
            : $"“{word}” is a claim about {(facet == Facet.Property ? "properties" : facet.ToString()!.ToLowerInvariant())}";

    public static string ForgotOwnWord(string word) => $"Removed “{word}” from the shop’s own words";

    public static string ChangedShop => "Changed the shop’s settings";

    public static string EditedListings(int count) => $"Changed {count:#,0} {(count == 1 ? "listing" : "listings")}";

    public static string Archived(int count, bool isBack) =>
        $"{(isBack ? "Restored" : "Archived")} {count:#,0} {(count == 1 ? "listing" : "listings")}";
}
