using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace TinRabbit.Server.Listings;

/// <summary>How a listing's text is stored.</summary>
internal static class TextColumn
{
    /// <summary>Stores a text as the JSON of its fields.</summary>
    public static void IsText(this PropertyBuilder<ListingText> property) =>
        property.HasConversion(new ValueConverter<ListingText, string>(t => t.Json, s => ListingText.Of(s)));
}
