using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Files.Documents;

/// <summary>An earlier text of a listing.</summary>
public sealed record DocumentVersion(DateTime At, VersionReason Reason, JsonObject Fields, [MaxLength(Bounds.NameLength)] string Name = "");
