using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;

namespace TinRabbit.Server.Storage;

/// <summary>How columns are stored.</summary>
internal static class Columns
{
    /// <summary>The filter of an index that leaves out deleted rows.</summary>
    public const string NotDeleted = "DeletedAt IS NULL";

    /// <summary>Stores a value as JSON.</summary>
    public static PropertyBuilder<T> IsJson<T>(this PropertyBuilder<T> property) =>
        property.HasConversion(
            new ValueConverter<T, string>(
                v => JsonSerializer.Serialize(v, JsonSerializerOptions.Web),
                s => JsonSerializer.Deserialize<T>(s, JsonSerializerOptions.Web)!
            ),
            new ValueComparer<T>(
                (a, b) => JsonSerializer.Serialize(a, JsonSerializerOptions.Web) == JsonSerializer.Serialize(b, JsonSerializerOptions.Web),
                v => JsonSerializer.Serialize(v, JsonSerializerOptions.Web).GetHashCode()
            )
        );
}
