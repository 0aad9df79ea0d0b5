namespace TinRabbit.Core.Watching;

/// <summary>How two checks differ in whether a listing was found.</summary>
public enum Flip
{
    /// <summary>Nothing changed, or one of them did not ask.</summary>
    None,

    /// <summary>It is found now, and was not before.</summary>
    Appeared,

    /// <summary>It was found before, and is not now.</summary>
    Disappeared,
}
