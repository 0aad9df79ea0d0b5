namespace TinRabbit.Core.Words;

/// <summary>The kind of fact that a word states about a product.</summary>
public enum Facet
{
    /// <summary>What it is made of.</summary>
    Material,

    /// <summary>How it looks. Taste, not a fact.</summary>
    Style,

    /// <summary>Which colour it has.</summary>
    Colour,

    /// <summary>How large it is.</summary>
    Size,

    /// <summary>Whom it is for.</summary>
    Audience,

    /// <summary>What it is given for.</summary>
    Occasion,

    /// <summary>Another property that can be true or false: organic, dishwasher safe, set of 3, from a country.</summary>
    Property,
}
