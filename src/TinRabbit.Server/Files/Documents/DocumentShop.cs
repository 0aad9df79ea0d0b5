namespace TinRabbit.Server.Files.Documents;

/// <summary>The shop's settings.</summary>
public sealed record DocumentShop([MaxLength(Bounds.NameLength)] string Name, [MaxLength(3)] string Currency);
