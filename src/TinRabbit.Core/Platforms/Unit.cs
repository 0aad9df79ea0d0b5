using TinRabbit.Core.Words;

namespace TinRabbit.Core.Platforms;

/// <summary>The unit of a limit.</summary>
public enum Unit
{
    /// <summary>Unicode scalar values.</summary>
    Characters,

    /// <summary>Bytes of UTF-8.</summary>
    Bytes,

    /// <summary>Words as <see cref="Tokens"/> cuts them.</summary>
    Words,
}
