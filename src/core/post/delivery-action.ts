/** What a person can do with a delivery on its way. */
export const deliveryActions = ['cancel', 'retry', 'send-now', 'hold', 'release'] as const;
export type DeliveryAction = (typeof deliveryActions)[number];
