namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>A review on a listing's page.</summary>
/// <param name="Stars">1–5; null where they are not known.</param>
/// <param name="Date">Its day; null where it is not known.</param>
public sealed record ReadReview(string Text, double? Stars = null, DateOnly? Date = null);
