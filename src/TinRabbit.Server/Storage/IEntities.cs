namespace TinRabbit.Server.Storage;

/// <summary>The rows of a module as tables. Each module has one, which <see cref="TinContext"/> finds by itself.</summary>
internal interface IEntities
{
    /// <summary>Adds the module's rows to the model.</summary>
    void Configure(ModelBuilder model);
}
