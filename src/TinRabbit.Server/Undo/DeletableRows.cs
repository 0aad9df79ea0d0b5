using System.Reflection;

namespace TinRabbit.Server.Undo;

/// <summary>Rows of any kind that can be deleted and restored, found by the name of their type.</summary>
internal static class DeletableRows
{
    private static readonly MethodInfo Query = typeof(DeletableRows).GetMethod(nameof(Of), BindingFlags.NonPublic | BindingFlags.Static)!;

    /// <summary>Every row that was deleted at one time.</summary>
    public static async Task<List<IDeletable>> DeletedAt(TinContext db, DateTime at, CancellationToken stop)
    {
        var all = new List<IDeletable>();
        foreach (var type in db.Model.GetEntityTypes().Select(e => e.ClrType).Where(t => t.IsAssignableTo(typeof(IDeletable))))
            all.AddRange(await Rows(db, type).IgnoreQueryFilters().Where(r => r.DeletedAt == at).ToListAsync(stop));
        return all;
    }

    /// <summary>The rows of one kind that are not deleted, and whether numbers are their keys.</summary>
    public static (IQueryable<IDeletable> Rows, bool IsNumbered) Named(TinContext db, string name)
    {
        var type = db.Model.GetEntityTypes().First(e => e.ClrType.Name == name);
        return (Rows(db, type.ClrType), type.FindPrimaryKey()!.Properties[0].ClrType == typeof(int));
    }

    private static IQueryable<IDeletable> Rows(TinContext db, Type type) =>
        (IQueryable<IDeletable>)Query.MakeGenericMethod(type).Invoke(null, [db])!;

    private static DbSet<T> Of<T>(TinContext db)
        where T : class, IDeletable => db.Set<T>();
}
