/** What is being done while a delivery is sent, in this order; its result is kept before the next begins. */
export const deliverySteps = ['render', 'upload', 'process', 'publish', 'follow'] as const;
export type DeliveryStep = (typeof deliverySteps)[number];
