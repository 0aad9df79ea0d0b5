namespace TinRabbit.Market;

/// <summary>What a buyer wrote about a listing.</summary>
/// <param name="Text">Its text.</param>
/// <param name="Stars">1–5; null where none were given.</param>
/// <param name="At">The day it was written; null where the market does not show it.</param>
public sealed record MarketReview(string Text, double? Stars, DateOnly? At);
