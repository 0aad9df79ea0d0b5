namespace TinRabbit.Server.Listings;

/// <summary>The shop, its products, listings and pages, in the database.</summary>
public static class ListingSets
{
    extension(TinContext db)
    {
        public DbSet<ShopRow> Shops => db.Set<ShopRow>();
        public DbSet<ProductRow> Products => db.Set<ProductRow>();
        public DbSet<PlatformRow> Platforms => db.Set<PlatformRow>();
        public DbSet<ListingRow> Listings => db.Set<ListingRow>();
        public DbSet<UploadShapeRow> UploadShapes => db.Set<UploadShapeRow>();
        public DbSet<VersionRow> Versions => db.Set<VersionRow>();
        public DbSet<TakeRow> Takes => db.Set<TakeRow>();
        public DbSet<AsideRow> Asides => db.Set<AsideRow>();
        public DbSet<SiteRow> Sites => db.Set<SiteRow>();
        public DbSet<PageRow> Pages => db.Set<PageRow>();
        public DbSet<RedirectRow> Redirects => db.Set<RedirectRow>();
    }
}
