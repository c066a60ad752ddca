<?php

declare(strict_types=1);

namespace Plinth\Server\Meter;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Takes readings of a distance meter, and tells the latest one to whoever waits for a figure. */
#[Route('/api/meter')]
final readonly class MeterController
{
    /** s: an older reading was meant for something else */
    private const FRESH = 60;

    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    #[Needs(Who::SignedIn)]
    #[Route('', methods: ['POST'])]
    public function send(Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'text']);
        $text = $body->get('text');
        if (LengthParser::parse($text->text(40), LengthUnit::Metre)->mm <= 0.0) {
            throw Refusal::invalid('length-not-positive', 'A meter reads more than zero.', 'text');
        }
        $key = ['user' => $this->access->user()->id(), 'id' => RowValues::uuid($body->get('id'))];
        // Sent again, even at the same moment, the first one counts.
        $this->entities->getConnection()->executeStatement(
            'INSERT IGNORE INTO meter_reading (user_id, id, text, at) VALUES (?, ?, ?, ?)',
            [
                $key['user']->toBinary(),
                $key['id']->toBinary(),
                $text->text(40),
                $this->clock->now()->setTimezone(new \DateTimeZone('UTC'))->format('Y-m-d H:i:s'),
            ],
        );
        $reading = $this->entities->find(Reading::class, $key) ?? throw Refusal::notFound();

        return new JsonResponse(['reading' => $reading->describe()]);
    }

    #[Needs(Who::SignedIn)]
    #[Route('', methods: ['GET'])]
    public function latest(): Response
    {
        $since = $this->clock->now()->modify('-'.self::FRESH.' seconds');
        $found = $this->entities->createQueryBuilder()->select('r')->from(Reading::class, 'r')
            ->where('r.user = :user')->andWhere('r.at >= :since')
            ->setParameter('user', $this->access->user()->id(), 'uuid')->setParameter('since', $since)
            ->orderBy('r.id', 'DESC')->setMaxResults(1)->getQuery()->getOneOrNullResult();

        return new JsonResponse(['reading' => $found instanceof Reading ? $found->describe() : null]);
    }
}
