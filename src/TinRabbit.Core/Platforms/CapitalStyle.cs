namespace TinRabbit.Core.Platforms;

/// <summary>Where a title that is suggested has capital letters.</summary>
public enum CapitalStyle
{
    /// <summary>The first letter of the title.</summary>
    Sentence,

    /// <summary>The first letter of each word, small words inside aside.</summary>
    Words,

    /// <summary>As the picks are typed.</summary>
    AsIs,
}
