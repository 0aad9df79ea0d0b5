namespace TinRabbit.Core.Measures;

/// <summary>Values by rank without sorting them all: a shelf may have a million.</summary>
public static class QuickSelect
{
    /// <summary>The median; null of none. Reorders the list.</summary>
    public static double? Median(List<double> values) =>
        values.Count == 0 ? null : (Select(values, (values.Count - 1) / 2) + Select(values, values.Count / 2)) / 2;

    /// <summary>The value that would stand at a place if they were sorted (Hoare's selection). Reorders the list.</summary>
    public static double Select(List<double> values, int place)
    {
        var span = System.Runtime.InteropServices.CollectionsMarshal.AsSpan(values);
        var (low, high) = (0, span.Length - 1);
        while (low < high)
        {
            var pivot = span[low + (high - low) / 2];
            var (i, k) = (low, high);
            while (i <= k)
            {
                while (span[i] < pivot)
                    i++;
                while (span[k] > pivot)
                    k--;
                if (i > k)
                    break;
                (span[i], span[k]) = (span[k], span[i]);
                i++;
                k--;
            }

            if (place <= k)
                high = k;
            else if (place >= i)
                low = i;
            else
                break;
        }

        return span[place];
    }
}
