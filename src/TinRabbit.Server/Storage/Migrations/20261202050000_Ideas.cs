using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Ideas : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(
                name: "IsIdea",
                table: "Products",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.CreateTable(
                name: "Likenesses",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    ProductId = table.Column<int>(type: "INTEGER", nullable: false),
                    MarketId = table.Column<string>(type: "TEXT", nullable: false),
                    Key = table.Column<string>(type: "TEXT", nullable: false),
                    Judged = table.Column<string>(type: "TEXT", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Likenesses", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_Likenesses_ProductId_MarketId_Key",
                table: "Likenesses",
                columns: new[] { "ProductId", "MarketId", "Key" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "Likenesses");

            migrationBuilder.DropColumn(
                name: "IsIdea",
                table: "Products");
        }
    }
}
