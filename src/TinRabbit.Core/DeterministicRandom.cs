namespace TinRabbit.Core;

/// <summary>
/// Random numbers that can be drawn again: the same seed always gives the same numbers, so that the same question has the same answer
/// (SplitMix64; Steele, Lea and Flood 2014).
/// </summary>
/// <param name="seed">Any number.</param>
public struct DeterministicRandom(ulong seed)
{
    private const ulong Increment = 0x9E3779B97F4A7C15UL;

    private ulong _state = seed;

    /// <summary>A generator for one thing: a market, a term, a month. It does not depend on what was drawn from others.</summary>
    public readonly DeterministicRandom For(string what)
    {
        // FNV-1a, 64 bits.
        var hash = 14695981039346656037UL ^ _state;
        foreach (var c in what)
            hash = (hash ^ c) * 1099511628211UL;
        return new(Mix(hash));
    }

    /// <summary>A generator for a numbered thing.</summary>
    public readonly DeterministicRandom For(int number) => new(Mix(_state + (ulong)number * Increment));

    /// <summary>The generator's 64 random bits.</summary>
    public readonly ulong Bits => Mix(_state);

    /// <summary>The generator's number between 0 and 1, 1 excluded. It is the same each time it is read.</summary>
    public readonly double Uniform => (Bits >> 11) * (1.0 / (1UL << 53));

    /// <summary>The generator's number from the standard normal distribution (Box and Muller 1958).</summary>
    public readonly double Normal => Math.Sqrt(-2 * Math.Log(1 - For(1).Uniform)) * Math.Cos(2 * Math.PI * For(2).Uniform);

    /// <summary>The generator's whole number from 0 up to, not including, <paramref name="count"/>.</summary>
    public readonly int Below(int count) => (int)(Uniform * count);

    /// <summary>The next whole number of a sequence, from 0 up to, not including, <paramref name="count"/>.</summary>
    public int Next(int count)
    {
        _state += Increment;
        return Below(count);
    }

    private static ulong Mix(ulong z)
    {
        z += Increment;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9UL;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EBUL;
        return z ^ (z >> 31);
    }
}
