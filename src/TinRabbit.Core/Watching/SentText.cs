using TinRabbit.Core.Platforms;

namespace TinRabbit.Core.Watching;

/// <summary>A text that a market was sent.</summary>
/// <param name="NoticedAt">From when its search knows the text, in UTC.</param>
/// <param name="Copy">The text.</param>
public sealed record SentText(DateTime NoticedAt, IReadOnlyDictionary<string, FieldValue> Copy);
