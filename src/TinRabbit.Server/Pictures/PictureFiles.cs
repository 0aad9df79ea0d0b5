using System.Collections.Concurrent;
using System.Security.Cryptography;
using NetVips;

namespace TinRabbit.Server.Pictures;

/// <summary>The picture files of the shop, beside the database: each is decoded, made smaller where it is large, and written anew without metadata.</summary>
internal sealed class PictureFiles(DataFolder folder)
{
    private const int LargestSide = 2400;
    private const int ThumbnailSide = 240;
    private const int Quality = 82;

    // A file never changes under its name.
    private readonly ConcurrentDictionary<string, int?> _sides = new(StringComparer.Ordinal);

    static PictureFiles()
    {
        NetVips.NetVips.BlockUntrusted = true;
        // What is wrong with a file is told to the seller, not to the console.
        Log.SetLogHandler("VIPS", Enums.LogLevelFlags.Warning, (_, _, _) => { });
    }

    /// <summary>Stores a picture.</summary>
    /// <param name="body">PNG, JPEG, WebP or AVIF; what it is is seen from its content.</param>
    /// <param name="stop">Stops reading; nothing is stored then.</param>
    /// <param name="given">The name that it has in an exported shop; it keeps it where it can.</param>
    /// <returns>The name of its file, by which the same picture is found again.</returns>
    /// <exception cref="InvalidInputException">It is too large, of another type, or damaged.</exception>
    public async Task<string> Add(Stream body, CancellationToken stop, string? given = null)
    {
        var bytes = await Read(body, stop);
        var name = NameOf(bytes, given);
        Directory.CreateDirectory(folder.Pictures);
        if (File.Exists(PathOf(name)!))
            return name;
        await Task.Run(() => Write(bytes, name, isOurs: name == given), stop);
        return name;
    }

    /// <summary>The name that <see cref="Add"/> would give a picture. Nothing is stored.</summary>
    /// <exception cref="InvalidInputException">It is too large, or of another type.</exception>
    public async Task<string> NameOf(Stream body, CancellationToken stop, string? given = null) => NameOf(await Read(body, stop), given);

    /// <summary>Where a picture's file is; null for a name that is none.</summary>
    /// <param name="name">The name that <see cref="Add"/> gave.</param>
    /// <param name="thumbnail">Whether the small one is meant.</param>
    public string? PathOf(string name, bool thumbnail = false) =>
        name.Length == 32 && name.All(char.IsAsciiHexDigitLower)
            ? Path.Combine(folder.Pictures, name + (thumbnail ? ".thumb.webp" : ".webp"))
            : null;

    /// <summary>The longer side of a picture's file in pixels; null where it is not there or can't be read.</summary>
    public int? SideOf(string name) =>
        _sides.GetOrAdd(
            name,
            _ =>
            {
                if (PathOf(name) is not { } path || !File.Exists(path))
                    return null;
                try
                {
                    using var header = Image.NewFromFile(path, access: Enums.Access.Sequential);
                    return Math.Max(header.Width, header.Height);
                }
                catch (VipsException)
                {
                    return null;
                }
            }
        );

    /// <summary>The type of a picture by its first bytes; null for anything else.</summary>
    public static string? TypeOf(ReadOnlySpan<byte> bytes) =>
        bytes.StartsWith((ReadOnlySpan<byte>)[0x89, (byte)'P', (byte)'N', (byte)'G']) ? "png"
        : bytes.StartsWith((ReadOnlySpan<byte>)[0xFF, 0xD8, 0xFF]) ? "jpeg"
        : bytes.Length > 12 && bytes[..4].SequenceEqual("RIFF"u8) && bytes[8..12].SequenceEqual("WEBP"u8) ? "webp"
        : bytes.Length > 12
        && bytes[4..8].SequenceEqual("ftyp"u8)
        && (bytes[8..12].SequenceEqual("avif"u8) || bytes[8..12].SequenceEqual("avis"u8))
            ? "avif"
        : null;

    // A name is of one picture: where this shop has another one under it, the given one gets its own.
    private string NameOf(byte[] bytes, string? given) =>
        TypeOf(bytes) is null ? throw Wrong("This is no picture of a known type. Use PNG, JPEG, WebP or AVIF.")
        : given is not null && PathOf(given) is { } path && (!File.Exists(path) || File.ReadAllBytes(path).AsSpan().SequenceEqual(bytes))
            ? given
        : Convert.ToHexStringLower(SHA256.HashData(bytes).AsSpan(0, 16));

    private void Write(byte[] bytes, string name, bool isOurs)
    {
        try
        {
            // The header alone says how large it is: nothing is decoded before that is known to be little enough.
            using (var header = Image.NewFromBuffer(bytes, access: Enums.Access.Sequential))
                if ((long)header.Width * header.Height > Bounds.PicturePixels)
                    throw Wrong(
                        $"This picture has {(long)header.Width * header.Height / 1_000_000:#,0} million pixels; the most is {Bounds.PicturePixels / 1_000_000}."
                    );
            // A thumbnail's own reading would take half a file for a whole one.
            using var read = Image.NewFromBuffer(bytes, failOn: Enums.FailOn.Error);
            using var upright = read.Autorot();
            // What was written by this program is not written worse.
            if (isOurs && TypeOf(bytes) == "webp" && Math.Max(read.Width, read.Height) <= LargestSide && !HasMetadata(read))
                File.WriteAllBytes(PathOf(name)!, bytes);
            else
                Save(upright, LargestSide, PathOf(name)!);
            Save(upright, ThumbnailSide, PathOf(name, thumbnail: true)!);
        }
        catch (VipsException)
        {
            File.Delete(PathOf(name)!);
            throw Wrong("This picture is damaged and can’t be read.");
        }
    }

    private static bool HasMetadata(Image image) =>
        image.GetFields().Any(f => f is "exif-data" or "xmp-data" or "iptc-data" or "icc-profile-data");

    // Made smaller where needed, without metadata; written beside its name first, so that no half file is found.
    private static void Save(Image upright, int side, string path)
    {
        using var image = upright.ThumbnailImage(side, height: side, size: Enums.Size.Down);
        var next = path + ".next.webp";
        image.Webpsave(next, q: Quality, keep: Enums.ForeignKeep.None);
        File.Move(next, path, overwrite: true);
    }

    private static async Task<byte[]> Read(Stream body, CancellationToken stop)
    {
        using var all = new MemoryStream();
        var chunk = new byte[1 << 16];
        int read;
        while ((read = await body.ReadAsync(chunk, stop)) > 0)
        {
            if (all.Length + read > Bounds.PictureBytes)
                throw Wrong($"This picture is larger than {Bounds.PictureBytes >> 20} MB, the limit.");
            all.Write(chunk, 0, read);
        }

        return all.ToArray();
    }

    private static InvalidInputException Wrong(string message) => new([new("file", message)]);
}
