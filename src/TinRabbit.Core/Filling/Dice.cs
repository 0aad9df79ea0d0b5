namespace TinRabbit.Core.Filling;

/// <summary>Throws for a search that must give the same answer to the same question: the same ones every time.</summary>
internal struct Dice()
{
    private uint _state = 1;

    /// <summary>A number from 0 to <paramref name="sides"/> − 1, by a linear congruence (Numerical Recipes, "Quick and Dirty Generators").</summary>
    public int Throw(int sides)
    {
        _state = _state * 1664525 + 1013904223;
        return (int)((ulong)_state * (ulong)sides >> 32);
    }
}
