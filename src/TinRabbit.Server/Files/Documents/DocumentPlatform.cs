namespace TinRabbit.Server.Files.Documents;

/// <summary>A platform of the seller's own.</summary>
/// <param name="Like">The id of the shipped platform that it resembles.</param>
public sealed record DocumentPlatform(JsonObject Profile, [MaxLength(Bounds.NameLength)] string Like);
