namespace TinRabbit.Server.Undo;

/// <summary>A row that a seller can give another name.</summary>
public interface IRenamed : IDeletable
{
    /// <summary>What it is called; empty where it has no name of its own.</summary>
    string Name { get; }

    /// <summary>Gives it a name; a revision moves on with it.</summary>
    void Rename(string name);
}
