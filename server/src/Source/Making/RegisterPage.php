<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\DBAL\Connection;
use Plinth\Core\Geometry\PixelAffine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Page\Exception\UnreadableRaster;
use Plinth\Core\Ink\Page\GreyFile;
use Plinth\Core\Ink\Pages\Registered;
use Plinth\Core\Ink\Pages\Registration;
use Plinth\Server\Change\RowId;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Failed;
use Plinth\Server\Source\FileStore;
use Symfony\Component\Uid\Uuid;

/** Finds how a newer page lies on the page it is to replace, and notes it with the page. */
final readonly class RegisterPage
{
    public function __construct(private Connection $connection, private FileStore $files)
    {
    }

    /** @param list<array{PixelPoint, PixelPoint}> $pairs picked by hand, old page then new */
    public function run(RowId $id, array $pairs, Attempt $attempt): void
    {
        $new = $this->page($id);
        $old = null === $new || !\is_string($new['replaces']) ? null : $this->page(new RowId(
            $id->project,
            Uuid::fromBinary($new['replaces']),
        ));
        if (null === $new || null === $old) {
            return;
        }
        $oldId = new RowId($id->project, Uuid::fromBinary($new['replaces']));
        try {
            $found = $this->find($oldId, $old, $id, $new, $pairs);
        } catch (UnreadableRaster) {
            throw Failed::because('The older page is not read yet. Read it first, then try again.');
        }
        if (null === $found) {
            throw Failed::because(
                'The two pages do not seem to show the same sheet. Pick the same points on both, at least two far apart.',
            );
        }
        [$x, $y] = $found->map->stretch();
        $attempt->write(fn () => $this->note($id, [
            'map' => $found->map->toArray(), 'points' => $found->points, 'rmsPx' => $found->rmsPx, 'greatestPx' => $found->greatestPx,
            'samePixels' => 0 === $found->points, 'turnDegrees' => -$found->map->turnDegrees(), 'scaleX' => $x, 'scaleY' => $y,
        ]));
    }

    /**
     * @param array{width: int, height: int, sha256: string, replaces: string|null, pictures: string} $old
     * @param array{width: int, height: int, sha256: string, replaces: string|null, pictures: string} $new
     * @param list<array{PixelPoint, PixelPoint}> $pairs
     */
    private function find(RowId $oldId, array $old, RowId $newId, array $new, array $pairs): ?Registered
    {
        $oldFolder = $this->files->pictures($oldId, $old['pictures']) ?? throw UnreadableRaster::unreadable('older page');
        $newFolder = $this->files->pictures($newId, $new['pictures']) ?? throw UnreadableRaster::unreadable('newer page');
        if (
            [$old['width'], $old['height']] === [$new['width'], $new['height']]
            && self::sameBytes($oldFolder.'/'.PageMaker::GREY, $newFolder.'/'.PageMaker::GREY, $new['width'] * $new['height'])
        ) {
            return new Registered(PixelAffine::identity(), 0, 0.0, 0.0);
        }

        return Registration::between(
            new GreyFile(
                $oldFolder.'/'.PageMaker::GREY,
                $old['width'],
                $old['height'],
                PictureHeader::BYTES,
            ), PageMaker::raster($oldFolder.'/'.PageMaker::SMALL),
            new GreyFile(
                $newFolder.'/'.PageMaker::GREY,
                $new['width'],
                $new['height'],
                PictureHeader::BYTES,
            ), PageMaker::raster($newFolder.'/'.PageMaker::SMALL),
            $pairs,
        );
    }

    private static function sameBytes(string $a, string $b, int $length): bool
    {
        $hash = static function (string $path) use ($length): ?string {
            $file = @fopen($path, 'r');
            if (false === $file) {
                return null;
            }
            fseek($file, PictureHeader::BYTES);
            $context = hash_init('xxh128');
            hash_update_stream($context, $file, $length);
            fclose($file);

            return hash_final($context);
        };
        $first = $hash($a);

        return null !== $first && $first === $hash($b);
    }

    /** @return array{width: int, height: int, sha256: string, replaces: string|null, pictures: string}|null */
    private function page(RowId $id): ?array
    {
        $row = $this->connection->fetchAssociative(
            'SELECT p.width, p.height, p.replaces, p.pictures, s.sha256 FROM page p JOIN source s ON s.project = p.project AND s.id = p.source WHERE p.project = ? AND p.id = ?',
            $id->binary(),
        );

        return false === $row || !is_numeric($row['width']) || !is_numeric($row['height']) || !\is_string($row['sha256']) || !\is_string($row['pictures'])
            ? null
            : [
                'width' => (int) $row['width'],
                'height' => (int) $row['height'],
                'sha256' => $row['sha256'],
                'replaces' => \is_string($row['replaces']) ? $row['replaces'] : null,
                'pictures' => $row['pictures'],
            ];
    }

    /** @param array<string, mixed> $registration */
    private function note(RowId $id, array $registration): void
    {
        $this->connection->update(
            'page',
            ['registration' => json_encode($registration, \JSON_THROW_ON_ERROR)],
            ['project' => $id->project->toBinary(), 'id' => $id->id->toBinary()],
        );
    }
}
