namespace TinRabbit.Server.Undo;

/// <summary>What a step works with.</summary>
/// <param name="Db">The database.</param>
/// <param name="Now">What is deleted gets this time, which no other step has.</param>
/// <param name="Services">Those that own what the step changes.</param>
public sealed record UndoContext(TinContext Db, DateTime Now, IServiceProvider Services)
{
    /// <summary>A service that owns what the step changes.</summary>
    public T Get<T>()
        where T : notnull => Services.GetRequiredService<T>();
}
