namespace TinRabbit.Server.Storage;

/// <summary>A verified copy of the shop's database.</summary>
/// <param name="Name">File name, by which it is restored.</param>
/// <param name="Bytes">Its size.</param>
public sealed record BackupView(string Name, DateTime At, BackupKind Kind, long Bytes);
