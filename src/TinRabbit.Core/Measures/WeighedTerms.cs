using TinRabbit.Core.Matching;

namespace TinRabbit.Core.Measures;

/// <summary>Weighed terms, kept as their figures; each is put together when it is asked for.</summary>
internal sealed class WeighedTerms(IReadOnlyList<WantedTerm> terms, Grade[] grades, double[] grips, Matcher matcher, NearMisses near)
    : IReadOnlyList<WeighedTerm>
{
    public int Count => grades.Length;

    public WeighedTerm this[int number] => new(terms[number], grades[number], grips[number], matcher, near, number);

    public IEnumerator<WeighedTerm> GetEnumerator() => Enumerable.Range(0, Count).Select(i => this[i]).GetEnumerator();

    System.Collections.IEnumerator System.Collections.IEnumerable.GetEnumerator() => GetEnumerator();
}
