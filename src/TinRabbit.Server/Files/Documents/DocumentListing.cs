namespace TinRabbit.Server.Files.Documents;

/// <summary>A listing.</summary>
/// <param name="Fields">Its texts by field.</param>
/// <param name="Takes">Titles that were saved.</param>
/// <param name="Records">What happened with it.</param>
public sealed record DocumentListing(
    string Platform,
    JsonObject Fields,
    [Term] string? Lead = null,
    IReadOnlyList<DocumentTake>? Takes = null,
    DocumentRecords? Records = null
);
