namespace TinRabbit.Server.Listings;

/// <summary>A column of a marketplace's export.</summary>
/// <param name="Head">Its heading.</param>
/// <param name="Role">What it holds: a field's key or a detail; empty where nothing here uses it.</param>
/// <param name="Separator">What is between several values of one cell; empty where there is one.</param>
public sealed record UploadColumn(string Head, string Role, string Separator);
