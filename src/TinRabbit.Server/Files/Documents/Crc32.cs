namespace TinRabbit.Server.Files.Documents;

/// <summary>The checksum of ZIP archives (CRC-32 of ISO 3309, polynomial EDB88320).</summary>
internal static class Crc32
{
    private static readonly uint[] Table =
    [
        .. Enumerable
            .Range(0, 256)
            .Select(n =>
            {
                var value = (uint)n;
                for (var bit = 0; bit < 8; bit++)
                    value = (value & 1) == 1 ? 0xEDB88320 ^ (value >> 1) : value >> 1;
                return value;
            }),
    ];

    public static uint Of(ReadOnlySpan<byte> bytes)
    {
        var sum = uint.MaxValue;
        foreach (var one in bytes)
            sum = Table[(byte)sum ^ one] ^ (sum >> 8);
        return ~sum;
    }
}
